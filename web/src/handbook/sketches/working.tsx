/** Drawings of the work: tooling, rehearsal and run. */
import { label } from './label';

export const WORKING_SKETCHES = {
  scale: (
    <>
      <path
        className="sketch-cut"
        d="M20 90H200M20 90V70M200 90V70M38 90V80M56 90V80M74 90V80M92 90V80M110 90V74M128 90V80M146 90V80M164 90V80M182 90V80"
      />
      {label(76, 56, '100 mm at 100 %')}
      <path className="sketch-fold" d="M20 120H189M20 112V128M189 112V128" />
      {label(60, 142, 'fit to page: 94 mm')}
    </>
  ),
  loading: (
    <>
      <rect className="sketch-machine" x="30" y="10" width="180" height="26" />
      <rect className="sketch-sheet" x="70" y="30" width="100" height="112" />
      <path className="sketch-feed" d="M120 72V48M112 57L120 47L128 57" />
      <circle className="sketch-ring" cx="84" cy="46" r="9" />
      {label(176, 96, 'printed side up')}
    </>
  ),
  ladder: (
    <>
      {[0, 1, 2, 3, 4].map((at) => (
        <g key={at}>
          <rect
            className={at < 2 ? 'sketch-perforation' : at === 4 ? 'sketch-deep' : 'sketch-cut'}
            x={16 + at * 44}
            y={50}
            width="30"
            height="30"
          />
          {label(20 + at * 44, 104, `${(at + 2) * 100}`)}
        </g>
      ))}
      {label(16, 34, 'not through')}
      {label(104, 34, 'just right')}
      {label(182, 34, 'too deep')}
    </>
  ),
  nick: (
    <>
      <path className="sketch-cut" d="M40 110V40H92M100 40H148M156 40H200V110H124M116 110H40" />
      <path className="sketch-safe" d="M24 24H216V128H24Z" />
      {label(78, 62, 'nicks')}
      {label(28, 144, 'weeding frame')}
    </>
  ),
  trailing: (
    <>
      <path className="sketch-perforation" d="M20 110H170V20" />
      <path className="sketch-cut" d="M20 110H140C160 110 168 100 170 80V20" />
      <circle className="sketch-ring" cx="170" cy="110" r="7" />
      {label(60, 132, 'what the tip cuts')}
      {label(178, 60, 'meant')}
    </>
  ),
  hairs: (
    <>
      <rect className="sketch-ink" x="46" y="30" width="140" height="92" />
      <rect className="sketch-cut" x="52" y="34" width="140" height="92" />
      <path
        className="sketch-hair"
        d="M60 34l12 8M80 34l12 8M100 34l12 8M120 34l12 8M140 34l12 8M160 34l12 8M192 50l12 8M192 70l12 8M192 90l12 8"
      />
      {label(52, 22, 'each hair 50 times as long')}
    </>
  ),
  operations: (
    <>
      <path className="sketch-cut" d="M30 36H150V116H30Z" />
      <path className="sketch-crease" d="M30 62H150M30 90H150" />
      <path className="sketch-perforation" d="M90 36V62" />
      {(
        [
          [166, 46, 'cut', '3'],
          [166, 76, 'crease', '1'],
          [166, 106, 'perforation', '2'],
        ] as const
      ).map(([x, y, kind, order]) => (
        <g key={order}>
          <path className={`sketch-${kind}`} d={`M${x} ${y}h20`} />
          {label(192, y + 3, `${order} ${kind === 'perforation' ? 'perforate' : kind}`)}
        </g>
      ))}
      {label(30, 24, 'what frees the piece comes last')}
    </>
  ),
  recipe: (
    <>
      <path className="sketch-sheet" d="M34 14H206V138H34Z" />
      <circle className="sketch-cut" cx="120" cy="24" r="4" />
      {(
        [
          ['card', 'kraft 300 g/m²'],
          ['tool', 'knife, left station'],
          ['force', '420 g'],
          ['passes', '1'],
        ] as const
      ).map(([what, value], at) => (
        <g key={what}>
          {label(46, 50 + at * 24, what)}
          {label(98, 50 + at * 24, value)}
          <path className="sketch-rule" d={`M46 ${56 + at * 24}H194`} />
        </g>
      ))}
    </>
  ),
  kiss: (
    <>
      <rect className="sketch-ink" x="16" y="64" width="150" height="14" />
      <rect className="sketch-sheet" x="16" y="78" width="150" height="12" />
      <rect className="sketch-card" x="16" y="90" width="150" height="16" />
      <path className="sketch-blade" d="M46 20H62V60L54 78L46 60Z" />
      <path className="sketch-blade" d="M116 20H132V72L124 91L116 72Z" />
      {label(172, 74, 'sticker')}
      {label(172, 87, 'liner')}
      {label(172, 101, 'carrier')}
      {label(38, 130, 'kiss cut')}
      {label(108, 130, 'through')}
    </>
  ),
  strips: (
    <>
      <path className="sketch-safe" d="M24 16H180V134H24Z" />
      <path className="sketch-safe" d="M24 76H66M134 76H180M102 16V44M102 106V134" />
      <circle className="sketch-cut" cx="100" cy="75" r="30" />
      <path className="sketch-ink" d="M104 16H180V74H134C130 56 118 46 104 44Z" />
      <path className="sketch-feed" d="M172 26C150 28 132 34 118 40M127 33L117 40L129 43" />
      {label(186, 48, 'a strip')}
      {label(186, 60, 'of waste')}
      {label(84, 78, 'piece')}
    </>
  ),
  frozen: (
    <>
      <rect className="sketch-sheet" x="14" y="10" width="96" height="128" />
      <rect className="sketch-ink" x="30" y="30" width="52" height="40" />
      <rect className="sketch-code" x="62" y="116" width="12" height="12" />
      <rect className="sketch-sheet" x="130" y="10" width="96" height="128" />
      <rect className="sketch-perforation" x="146" y="30" width="52" height="40" />
      <rect className="sketch-cut" x="160" y="52" width="52" height="40" />
      <path className="sketch-feed" d="M152 38L166 52M158 53L167 53L167 44" />
      {label(20, 128, 'printed')}
      {label(136, 128, 'changed since')}
    </>
  ),
  look: (
    <>
      <path className="sketch-sheet" d="M30 20H190V130H70L30 100Z" />
      <path className="sketch-card" d="M30 100L70 130L72 102Z" />
      <path className="sketch-cut" d="M90 44H164V100H90Z" />
      <path className="sketch-hair" d="M14 136L52 108" />
      {label(84, 122, 'lift a corner of the waste')}
    </>
  ),
  off: (
    <>
      {(
        [
          [60, 40, 7, 0],
          [60, 112, 7, 0],
          [176, 40, 3, 0],
          [176, 112, 12, 0],
        ] as const
      ).map(([x, y, right, down]) => (
        <g key={`${x} ${y}`}>
          <path className="sketch-safe" d={`M${x - 12} ${y}h24M${x} ${y - 12}v24`} />
          <path
            className="sketch-cut"
            d={`M${x + right - 12} ${y + down}h24M${x + right} ${y + down - 12}v24`}
          />
        </g>
      ))}
      {label(26, 78, 'the same: a shift')}
      {label(134, 78, 'more and more: a turn')}
    </>
  ),
  queue: (
    <>
      {(['Basil', 'Borage', 'Carrot'] as const).map((name, at) => (
        <g key={name}>
          <rect className="sketch-sheet" x="96" y={20 + at * 40} width="130" height="30" />
          {label(106, 39 + at * 40, `${at + 1}  ${name}`)}
          <rect className="sketch-safe" x="166" y={31 + at * 40} width="50" height="8" />
        </g>
      ))}
      <rect className="sketch-ink" x="166" y="31" width="34" height="8" />
      <rect className="sketch-machine" x="10" y="24" width="58" height="22" />
      <path className="sketch-feed" d="M92 35H74M82 29L73 35L82 41" />
      {label(12, 62, 'the cutter')}
    </>
  ),
};
