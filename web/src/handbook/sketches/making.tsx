/** Drawings of what is made: form, face and sheet. */
import { label } from './label';

export const MAKING_SKETCHES = {
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
  form: (
    <>
      <path
        className="sketch-cut"
        d="M18 60L10 64V98L18 102M18 60H48L50 50H60L62 60V44L66 36H88L92 44V60L94 50H104L106 60V102L104 112H94L92 102V118L88 126H66L62 118V102L60 112H50L48 102H18"
      />
      <path
        className="sketch-crease"
        d="M18 60V102M48 60V102M62 60V102M92 60V102M48 60H106M48 102H106M66 44H88M66 118H88"
      />
      <path className="sketch-measure" d="M18 28V38M48 28V38M18 33H48" />
      {label(18, 24, 'length')}
      <path className="sketch-feed" d="M118 82H136M128 76L137 82L128 88" />
      <path className="sketch-card" d="M150 62L186 72V128L150 116ZM186 72L214 60V114L186 128Z" />
      <path className="sketch-cut" d="M150 62L178 50L214 60L186 72Z" />
      {label(150, 42, 'inside, outside')}
    </>
  ),
  grain: (
    <>
      <rect className="sketch-sheet" x="16" y="14" width="96" height="108" />
      <rect className="sketch-sheet" x="128" y="14" width="96" height="108" />
      <path
        className="sketch-fibre"
        d="M26 20V70M34 40V116M44 22V84M54 48V114M74 24V92M84 44V112M94 20V66M102 50V116M138 20V58M146 80V116M158 24V60M170 76V114M182 22V58M192 78V116M204 20V60M214 74V112"
      />
      <path className="sketch-crease" d="M64 14V122" />
      <path
        className="sketch-crack"
        d="M128 68L136 66L141 70L149 67L156 71L163 66L170 70L178 67L185 71L192 66L200 69L208 66L216 70L224 68"
      />
      {label(30, 138, 'along: clean')}
      {label(140, 138, 'across: it cracks')}
    </>
  ),
  folding: (
    <>
      <path className="sketch-plate" d="M12 100H72" />
      <path className="sketch-plate" d="M98 84L112 100H140L154 84" />
      <path className="sketch-plate" d="M186 72V100H216V72" />
      <path className="sketch-feed" d="M22 92C22 78 28 70 36 66M31 65L37 65L35 71" />
      <path className="sketch-feed" d="M62 92C62 78 56 70 48 66M53 65L47 65L49 71" />
      <path
        className="sketch-measure"
        d="M31 104V110M53 104V110M112 104V110M140 104V110M186 104V110M216 104V110"
      />
      {label(28, 124, 'flat')}
      {label(108, 124, 'on the way')}
      {label(186, 124, 'closed')}
      {label(180, 66, '1')}
      {label(217, 66, '1')}
    </>
  ),
  bends: (
    <>
      <path className="sketch-cut" d="M30 30H204V120H30" />
      <path className="sketch-cut" d="M30 30C52 60 52 90 30 120" />
      <path className="sketch-crease" d="M204 30C182 60 182 90 204 120" />
      <path
        className="sketch-perforation"
        d="M70 30V120M92 30V120M114 30V120M136 30V120M158 30V120"
      />
      {label(72, 22, 'strips, where the card bends')}
      {label(140, 140, 'a crease that is a curve')}
    </>
  ),
  drawings: (
    <>
      <rect className="sketch-sheet" x="10" y="10" width="132" height="130" />
      <path className="sketch-cut" d="M22 130V86H62V130Z" />
      <path className="sketch-safe" d="M22 130V70H76V130Z" />
      <path className="sketch-hair" d="M22 130V24H118V130Z" />
      {label(26, 96, '96')}
      {label(64, 80, '72')}
      {label(92, 34, 'mm?')}
      <path className="sketch-cut" d="M154 34H180" />
      <path className="sketch-crease" d="M154 62H180" />
      <path className="sketch-hair" d="M154 90H180" />
      {label(186, 37, 'cut')}
      {label(186, 65, 'crease')}
      {label(186, 93, 'left out')}
    </>
  ),
  tracing: (
    <>
      {[
        [3, 4, 8],
        [2, 3, 10],
        [1, 2, 12],
        [1, 1, 13],
        [1, 1, 13],
        [2, 2, 12],
        [3, 3, 10],
        [5, 5, 7],
      ].map(([, from = 0, to = 0], row) => (
        <rect
          key={row}
          className="sketch-ink"
          x={20 + from * 10}
          y={30 + row * 11}
          width={(to - from + 1) * 10}
          height="11"
        />
      ))}
      <path
        className="sketch-cut"
        d="M85 30C128 26 168 52 164 76C160 104 118 120 88 118C54 116 28 92 28 70C28 48 52 32 85 30Z"
      />
      {[
        [85, 30],
        [164, 76],
        [88, 118],
        [28, 70],
      ].map(([x = 0, y = 0]) => (
        <circle key={x} className="sketch-node" cx={x} cy={y} r="3" />
      ))}
      {label(172, 46, 'the line')}
      {label(176, 106, 'pixels')}
    </>
  ),
  border: (
    <>
      <circle className="sketch-ink" cx="84" cy="72" r="26" />
      <circle className="sketch-ink" cx="140" cy="72" r="26" />
      <path className="sketch-cut" d="M112 50.4A36 36 0 1 0 112 93.6A36 36 0 1 0 112 50.4Z" />
      <path className="sketch-measure" d="M166 72H176M166 66V78M176 66V78" />
      {label(184, 76, 'border')}
      {label(60, 134, 'where borders meet they are one')}
    </>
  ),
  card: (
    <>
      <rect className="sketch-cut" x="60" y="8" width="112" height="134" rx="8" />
      <circle className="sketch-cut" cx="116" cy="20" r="5" />
      {[44, 78, 112].map((y) =>
        [86, 146].map((x) => (
          <ellipse
            key={`${x} ${y}`}
            className="sketch-kiss-cut"
            cx={x}
            cy={y + 6}
            rx="20"
            ry="12"
          />
        )),
      )}
      {label(180, 40, 'through')}
      {label(180, 86, 'kiss cut')}
    </>
  ),
  face: (
    <>
      <path className="sketch-ink" d="M20 110L70 84H176L126 110Z" />
      <path className="sketch-safe" d="M20 78L70 52H176L126 78Z" />
      <path className="sketch-ink" d="M64 71L84 60H130L110 71Z" />
      <path className="sketch-safe" d="M20 46L70 20H176L126 46Z" />
      <path className="sketch-cut" d="M62 36L72 31M76 36L86 31M90 36L100 31M104 36L114 31" />
      {label(184, 24, 'words')}
      {label(184, 56, 'a picture')}
      {label(184, 90, 'colour')}
      {label(20, 134, 'printed from the lowest to the highest')}
    </>
  ),
  names: (
    <>
      {['Basil', 'Borage', 'Carrot'].map((name, at) => (
        <g key={name}>
          <path className="sketch-rule" d={`M14 ${40 + at * 34}H80`} />
          {label(18, 34 + at * 34, name)}
          <path
            className="sketch-feed"
            d={`M90 ${30 + at * 34}H108M102 ${26 + at * 34}L109 ${30 + at * 34}L102 ${34 + at * 34}`}
          />
          <path
            className="sketch-cut"
            d={`M122 ${30 + at * 34}L134 ${18 + at * 34}H222V${42 + at * 34}H134Z`}
          />
          <circle className="sketch-cut" cx="134" cy={30 + at * 34} r="2.5" />
          {label(150, 34 + at * 34, name)}
        </g>
      ))}
      {label(14, 138, 'a row, a copy')}
    </>
  ),
  finishes: (
    <>
      <rect className="sketch-card" x="20" y="104" width="130" height="14" />
      <rect className="sketch-sheet" x="44" y="90" width="82" height="8" />
      <rect className="sketch-ink" x="40" y="76" width="90" height="8" />
      <rect className="sketch-safe" x="60" y="62" width="30" height="8" />
      <path className="sketch-measure" d="M40 52V60M44 52V60M30 56H40M44 56H54" />
      {label(160, 69, 'varnish')}
      {label(160, 83, 'colour')}
      {label(160, 97, 'white')}
      {label(160, 114, 'stock')}
      {label(20, 46, 'white is drawn in by a hair')}
    </>
  ),
  alone: (
    <>
      <rect className="sketch-sheet" x="14" y="34" width="62" height="84" />
      <path className="sketch-mark" d="M20 48V40H28M62 40H70V48M28 112H20V104" />
      <path className="sketch-feed" d="M84 76H102M94 70L103 76L94 82" />
      <g transform="rotate(6 170 76)">
        <rect className="sketch-sheet" x="124" y="18" width="86" height="116" />
        <path className="sketch-mark" d="M132 38V26H144M190 26H202V38M144 126H132V114" />
        <circle className="sketch-ink" cx="167" cy="76" r="24" />
      </g>
      {label(10, 26, 'marks alone')}
      {label(10, 142, '1.33 times, 6° turned')}
    </>
  ),
  code: (
    <>
      <rect className="sketch-sheet" x="14" y="12" width="92" height="126" />
      <path className="sketch-cut" d="M30 30H90V84H30Z" />
      <rect className="sketch-code" x="76" y="116" width="12" height="12" />
      <path className="sketch-rule" d="M24 126H68" />
      <circle className="sketch-ring" cx="82" cy="122" r="13" />
      <path className="sketch-feed" d="M96 116L132 88" />
      {['1111111', '1000101', '1011001', '1010111', '1001010', '1100101', '1011111'].flatMap(
        (row, y) =>
          row
            .split('')
            .map((bit, x) =>
              bit === '1' ? (
                <rect
                  key={`${x} ${y}`}
                  className="sketch-code"
                  x={138 + x * 9}
                  y={30 + y * 9}
                  width="9"
                  height="9"
                />
              ) : null,
            ),
      )}
      {label(148, 112, 'BE5W9, 1 of 7')}
    </>
  ),
  nesting: (
    <>
      <rect className="sketch-sheet" x="10" y="14" width="104" height="112" />
      <rect className="sketch-sheet" x="126" y="14" width="104" height="112" />
      {[
        [14, 18],
        [64, 18],
        [14, 57],
        [64, 57],
        [128, 18],
        [180, 18],
        [128, 72],
        [180, 72],
      ].map(([x, y]) => (
        <path key={`${x} ${y}`} className="sketch-cut" d={`M${x} ${y}h46v12h-15v24h-16v-24h-15z`} />
      ))}
      {[33, 87].map((y) => (
        <path key={y} className="sketch-cut" d={`M169 ${y}h16v24h15v12h-46v-12h15z`} />
      ))}
      {label(34, 140, '4 in rows')}
      {label(152, 140, '6 nested')}
    </>
  ),
};
