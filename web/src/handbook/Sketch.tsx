/** The handbook's drawings, in the lines that Aptum draws everything with. */
import type { DrawingName } from './pages';

export function Sketch({ name }: { name: DrawingName }) {
  return (
    <svg className="handbook-sketch" viewBox="0 0 240 150" aria-hidden="true">
      {DRAWINGS[name]}
    </svg>
  );
}

const label = (x: number, y: number, words: string) => (
  <text key={words} x={x} y={y}>
    {words}
  </text>
);

const DRAWINGS: Record<DrawingName, React.ReactNode> = {
  lines: (
    <>
      {(
        [
          ['cut', 'cut'],
          ['kiss-cut', 'kiss cut'],
          ['score', 'score'],
          ['crease', 'crease'],
          ['reverse-crease', 'reverse crease'],
          ['perforation', 'perforation'],
        ] as const
      ).map(([kind, words], at) => (
        <g key={kind}>
          <path className={`sketch-${kind}`} d={`M10 ${20 + at * 22}H130`} />
          {label(142, 24 + at * 22, words)}
        </g>
      ))}
    </>
  ),
  caliper: (
    <>
      <path className="sketch-card" d="M20 40H150V130H140V50H20Z" />
      <path className="sketch-measure" d="M20 28V58M8 40H20M8 50H20M12 32V40M12 50V58" />
      {label(26, 34, 'caliper')}
      {label(158, 90, 'fold')}
    </>
  ),
  bleed: (
    <>
      <rect className="sketch-ink" x="24" y="14" width="150" height="120" />
      <rect className="sketch-cut" x="40" y="30" width="118" height="88" />
      <rect className="sketch-safe" x="56" y="46" width="86" height="56" />
      {label(182, 26, 'bleed')}
      {label(182, 60, 'cut')}
      {label(62, 78, 'safe margin')}
    </>
  ),
  window: (
    <>
      <rect className="sketch-sheet" x="60" y="8" width="106" height="136" />
      <rect className="sketch-safe" x="68" y="16" width="90" height="120" />
      <path className="sketch-cut" d="M84 28H142V44H150V108H142V124H84V108H76V44H84Z" />
      {label(174, 24, 'sheet')}
      {label(174, 58, 'print window')}
      {label(174, 92, 'cut window')}
    </>
  ),
  marks: (
    <>
      <rect className="sketch-sheet" x="60" y="8" width="106" height="136" />
      <path className="sketch-mark" d="M68 28V16H80M146 16H158V28M158 124V136H146M80 136H68V124" />
      <rect className="sketch-code" x="104" y="122" width="16" height="16" />
      <circle className="sketch-ring" cx="70" cy="18" r="12" />
      {label(12, 20, 'the first')}
      {label(174, 136, 'the code')}
    </>
  ),
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
};
