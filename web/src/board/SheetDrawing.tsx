/** A sheet with its copies, its marks, and what takes room from it. */
import { Fragment, memo, type ReactNode } from 'react';

import type {
  InkedView,
  Placement,
  PlannedLines,
  SheetRun,
  SheetView,
} from '../api/generated/types';
import type { PartView, Preview } from '../api/views';
import { Inks } from './Art';
import { HatchPatterns } from './hatches';

/** What of a sheet is shown: all of it to work on, or just what a machine does with it, in front or behind. */
export type Shown = 'all' | 'printed' | 'behind' | 'cut';

/** Every blank of a job, in the order in which placements number them. */
export const partsOf = (preview: Preview): PartView[] =>
  preview.pieces.flatMap((piece) => (piece.held_by ? [] : piece.flat.parts));

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
  const { sheet, run, colour, shown, hidden, onHover, place, copies, lines } = props;
  const isBehind = shown === 'behind';
  const parts = isBehind ? props.parts.map((part) => ({ ...part, art: part.behind })) : props.parts;
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
        (shown === 'cut' ? [] : placements).map((placement, at) => (
          <PlacedCopy
            key={`${placement.part} ${placement.x} ${placement.y}`}
            placement={placement}
            name={name}
            part={parts[placement.part]}
            worn={isBehind ? undefined : sheet.worn[run]?.[at]}
            turned={isBehind ? sheet.turned : undefined}
          />
        ))}
      {shown === 'all' && sheet.misfit && (
        <g className="misfit">
          <PlacedCopy
            placement={sheet.misfit.placement}
            name={name}
            part={parts[sheet.misfit.placement.part]}
          />
          <path className="misfit-outside" d={sheet.misfit.outside} fillRule="evenodd" />
        </g>
      )}
      {shown !== 'cut' && !isBehind && <path className="marks" d={sheet.marks} />}
      {shown !== 'cut' && !isBehind && notes && (
        <g className="notes">
          <path className="notes-rule" d={notes.rule} />
          <path className="notes-words" d={notes.words} />
        </g>
      )}
      {place != null && <path className="place" d={place} />}
    </g>
  );
}

export const transformOf = ({ x, y, turn }: Placement, part?: PartView) =>
  `translate(${x} ${y}) rotate(${turn})${part?.is_mirrored ? turnedOver(part) : ''}`;

/** Left and right exchanged. */
const turnedOver = ({ size: [width] }: PartView) => ` matrix(-1 0 0 1 ${width} 0)`;

/** Where the back of a copy lies, seen from behind: on the turned page, itself turned over. */
const behindOf = (placement: Placement, turned: number[], part: PartView) =>
  `matrix(${turned.join(' ')}) ${transformOf(placement)}${turnedOver(part)}`;

/** A copy: the blank is in the drawing once, however many copies there are; what it wears of its own lies between. */
export const PlacedCopy = memo(function PlacedCopy(props: {
  placement: Placement;
  name: string;
  part?: PartView | undefined;
  worn?: InkedView[] | undefined;
  /** From the front of the page to its back, where that is what is seen. */
  turned?: number[] | undefined;
}) {
  const { placement, name, part, worn, turned } = props;
  const transform =
    turned && part ? behindOf(placement, turned, part) : transformOf(placement, part);
  const href = `#blank-${name}${placement.part}`;
  const levels = part?.art?.levels ?? 0;
  if (levels === 0) {
    return <use className="copy" {...{ href, transform }} />;
  }
  return (
    <g className="copy" {...{ transform }}>
      {Array.from({ length: levels + 1 }, (_, level) => (
        <Fragment key={level}>
          <use href={`${href}-${level}`} />
          <Inks
            inks={worn?.filter((inked) => inked.level === level) ?? []}
            all={part?.art?.layers ?? []}
          />
        </Fragment>
      ))}
    </g>
  );
});

/** What all copies of a blank have in common: one drawing, or one for each level that something of a row lies between. */
function PartSymbol({ id, part, shown }: { id: string; part: PartView; shown: Shown }) {
  const levels = part.art?.levels ?? 0;
  const inks = part.art?.layers.filter((inked) => !inked.is_by_row && isOn(inked, shown)) ?? [];
  return Array.from({ length: levels + 1 }, (_, level) => (
    <g key={level} id={`blank-${id}${levels > 0 ? `-${level}` : ''}`}>
      {shown === 'all' && level === 0 && (
        <path className="copy-card" d={part.outline + part.openings} fillRule="evenodd" />
      )}
      <Inks inks={inks.filter((inked) => inked.level === level)} all={part.art?.layers ?? []} />
      {shown === 'all' && level === levels && (
        <>
          {part.lines.map((line) => (
            <path key={line.kind} className={`line ${line.kind}`} d={line.path} />
          ))}
          <path className={`line ${part.edge} outline`} d={part.outline} />
        </>
      )}
    </g>
  ));
}

/** What is only shown is not on a printed sheet. */
const isOn = (inked: InkedView, shown: Shown) => shown === 'all' || inked.is_printed;
