/** A sheet with its copies, its marks, and what takes room from it. */
import { memo, type ReactNode } from 'react';

import type { Placement, SheetView, PlannedLines, SheetRun } from '../api/generated/types';
import type { PartView, Preview } from '../api/views';
import { Art } from './Art';
import { HatchPatterns } from './hatches';

/** What of a sheet is shown: all of it to work on, or just what a machine does with it. */
export type Shown = 'all' | 'printed' | 'cut';

/** Every blank of a job, in the order in which placements number them. */
export const partsOf = (preview: Preview): PartView[] =>
  preview.pieces.flatMap((piece) => piece.flat.parts);

/** The card of a run of sheets: that of what lies on it, or else of the first blank. */
export const cardOfRun = (run: SheetRun | undefined, parts: PartView[]): string =>
  (parts[run?.placements[0]?.part ?? 0] ?? parts[0])?.stock ?? '';

interface Props {
  parts: PartView[];
  sheet: SheetView;
  /** Which run of sheets that are alike. */
  run: number;
  colour: string;
  shown: Shown;
  hidden?: ReadonlySet<string>;
  onHover?: (name: string | null) => void;
  place?: string | null;
  /** What is cut, in the order of work, where that is what is shown. */
  lines?: PlannedLines[];
  /** The copies, where they are not just drawn but handled. */
  copies?: ReactNode;
}

export function SheetDrawing(props: Props) {
  const { parts, sheet, run, colour, shown, hidden, onHover, place, copies, lines } = props;
  const [width, height] = sheet.page;
  const placements = sheet.layout.runs[run]?.placements ?? [];
  const notes = sheet.notes[run];
  const name = `${shown}-`;
  const card = shown === 'all' ? colour : undefined;
  return (
    <g className={`sheet sheet-${shown}`}>
      <defs>
        <HatchPatterns name={name} />
        {parts.map((part, index) => (
          <PartSymbol
            key={`${index} ${part.name}`}
            id={name + String(index)}
            {...{ part, shown }}
          />
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
      {lines?.map((line) => (
        <path key={line.kind} className={`line ${line.kind}`} d={line.path} />
      ))}
      {copies ??
        (shown === 'cut' ? [] : placements).map((placement) => (
          <PlacedCopy
            key={`${placement.part} ${placement.x} ${placement.y}`}
            placement={placement}
            name={name}
          />
        ))}
      {shown === 'all' && sheet.misfit && (
        <g className="misfit">
          <PlacedCopy placement={sheet.misfit.placement} name={name} />
          <path className="misfit-outside" d={sheet.misfit.outside} fillRule="evenodd" />
        </g>
      )}
      {shown !== 'cut' && <path className="marks" d={sheet.marks} />}
      {shown !== 'cut' && notes && (
        <g className="notes">
          <path className="notes-rule" d={notes.rule} />
          <path className="notes-words" d={notes.words} />
        </g>
      )}
      {place != null && <path className="place" d={place} />}
    </g>
  );
}

export const transformOf = ({ x, y, turn }: Placement) => `translate(${x} ${y}) rotate(${turn})`;

/** A copy: the blank is in the drawing once, however many copies there are. */
export const PlacedCopy = memo(function PlacedCopy(props: { placement: Placement; name: string }) {
  const { placement, name } = props;
  return (
    <use
      className="copy"
      href={`#blank-${name}${placement.part}`}
      transform={transformOf(placement)}
    />
  );
});

function PartSymbol({ id, part, shown }: { id: string; part: PartView; shown: Shown }) {
  return (
    <g id={`blank-${id}`}>
      {shown === 'all' && (
        <path className="copy-card" d={part.outline + part.openings} fillRule="evenodd" />
      )}
      {part.art && <Art art={part.art} />}
      {shown === 'all' && (
        <>
          {part.lines.map((line) => (
            <path key={line.kind + line.path} className={`line ${line.kind}`} d={line.path} />
          ))}
          <path className={`line ${part.edge} outline`} d={part.outline} />
        </>
      )}
    </g>
  );
}
