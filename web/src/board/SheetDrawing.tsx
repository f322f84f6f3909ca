/** A sheet with its copies, its marks, and what takes room from it. */
import type { FlatView, Placement, SheetView, TakenBy } from '../api/generated/types';

/** What of a sheet is shown: all of it to work on, or just what a machine does with it. */
export type Shown = 'all' | 'printed' | 'cut';

interface Props {
  flat: FlatView;
  sheet: SheetView;
  /** Which run of sheets that are alike. */
  run: number;
  colour: string;
  shown: Shown;
  hidden?: ReadonlySet<string>;
  onHover?: (name: string | null) => void;
  place?: string | null;
}

const HATCHES: Record<TakenBy, { turn: number; gap: number }> = {
  'printer-margin': { turn: 45, gap: 2.5 },
  'cutter-reach': { turn: -45, gap: 3.5 },
  'outside-marks': { turn: 0, gap: 3.5 },
  'keep-clear': { turn: -45, gap: 1.8 },
  sign: { turn: 90, gap: 1.2 },
};

export function SheetDrawing(props: Props) {
  const { flat, sheet, run, colour, shown, hidden, onHover, place } = props;
  const [width, height] = sheet.page;
  const placements = sheet.layout.runs[run]?.placements ?? [];
  const notes = sheet.notes[run];
  const name = `${shown}-`;
  const card = shown === 'all' ? colour : undefined;
  return (
    <g className={`sheet sheet-${shown}`}>
      <defs>
        {(Object.keys(HATCHES) as TakenBy[]).map((by) => (
          <pattern
            key={by}
            id={name + by}
            width={HATCHES[by].gap}
            height={HATCHES[by].gap}
            patternUnits="userSpaceOnUse"
            patternTransform={`rotate(${HATCHES[by].turn})`}
          >
            <line className={`hatch-${by}`} x1="0" y1="0" x2="0" y2={HATCHES[by].gap} />
          </pattern>
        ))}
      </defs>
      <rect
        className="page"
        width={width}
        height={height}
        style={card ? { fill: card } : undefined}
      />
      {shown === 'all' &&
        sheet.taken
          .filter((taken) => !hidden?.has(taken.by))
          .map((taken) => (
            <path
              key={taken.name}
              className={`taken taken-${taken.by}`}
              d={taken.path}
              fill={`url(#${name}${taken.by})`}
              fillRule="evenodd"
              onPointerEnter={() => onHover?.(taken.name)}
              onPointerLeave={() => onHover?.(null)}
            />
          ))}
      {shown === 'all' && !hidden?.has('cut-window') && (
        <path className="window cut-window" d={sheet.cut_window} />
      )}
      {shown === 'all' && !hidden?.has('print-window') && (
        <path className="window print-window" d={sheet.print_window} />
      )}
      {placements.map((placement) => (
        <Copy
          key={`${placement.part} ${placement.x} ${placement.y}`}
          placement={placement}
          flat={flat}
          shown={shown}
        />
      ))}
      {shown === 'all' && sheet.misfit && (
        <g className="misfit">
          <Copy placement={sheet.misfit.placement} flat={flat} shown={shown} />
          <path className="misfit-outside" d={sheet.misfit.outside} fillRule="evenodd" />
        </g>
      )}
      {shown !== 'cut' && <path className="marks" d={sheet.marks} />}
      {shown !== 'cut' && notes && (
        <g className="notes" transform={`translate(${notes.place[0] + 0.5} ${notes.place[1]})`}>
          <path d={`M0 ${notes.place[3] - 1}h${notes.scale}M0 3.6v2.4M${notes.scale} 3.6v2.4`} />
          <text x={notes.scale / 2} y={3.2} textAnchor="middle">
            {notes.text}
          </text>
        </g>
      )}
      {place != null && <path className="place" d={place} />}
    </g>
  );
}

interface CopyProps {
  placement: Placement;
  flat: FlatView;
  shown: Shown;
}

function Copy({ placement, flat, shown }: CopyProps) {
  const { part: index, x, y, turn } = placement;
  const part = flat.parts[index];
  if (!part) return null;
  const art = shown === 'cut' ? null : part.art;
  return (
    <g className="copy" transform={`translate(${x} ${y}) rotate(${turn * 90})`}>
      {shown === 'all' && (
        <path className="copy-card" d={part.outline + part.openings} fillRule="evenodd" />
      )}
      {art?.colour && <path d={art.fill} fill={art.colour} />}
      {art && <path className="caption-art" d={art.captions} />}
      {shown !== 'printed' && (
        <>
          {part.lines.map((line) => (
            <path key={line.kind + line.path} className={`line ${line.kind}`} d={line.path} />
          ))}
          <path className="line cut outline" d={part.outline} />
        </>
      )}
    </g>
  );
}
