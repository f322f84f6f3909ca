/** The sheets of the job, small: those that are alike together. */
import { Button } from 'react-bootstrap';

import type { SheetRun, SheetView, Workshop } from '../api/generated/types';
import type { PartView } from '../api/views';
import { cardOfRun } from '../board/SheetDrawing';

interface Props {
  sheet: SheetView;
  parts: PartView[];
  stocks: Workshop['stocks'];
  picked: number;
  onPick: (run: number) => void;
}

export function SheetList({ sheet, parts, stocks, picked, onPick }: Props) {
  const { runs } = sheet.layout;
  if (runs.length < 2) return null;
  const [width, height] = sheet.page;
  const cardOf = (run: SheetRun) => cardOfRun(run, parts);
  const several = new Set(runs.map(cardOf)).size > 1;
  const first = runs.map((_, index) =>
    runs.slice(0, index).reduce((sum, run) => sum + run.sheets, 1),
  );
  return (
    <ul className="sheet-list" aria-label="Sheets">
      {runs.map((run, index) => {
        const from = first[index] ?? 1;
        const to = from + run.sheets - 1;
        const label = from === to ? `sheet ${from}` : `sheets ${from} to ${to}`;
        return (
          <li key={label}>
            <Button variant="bare" aria-pressed={index === picked} onClick={() => onPick(index)}>
              <svg viewBox={`-2 -2 ${width + 4} ${height + 4}`} aria-hidden="true">
                <rect className="small-page" width={width} height={height} />
                {run.placements.map(({ part, x, y, turn }) => (
                  <path
                    key={`${part} ${x} ${y}`}
                    className="small-copy"
                    d={parts[part]?.outline}
                    transform={`translate(${x} ${y}) rotate(${turn})`}
                  />
                ))}
              </svg>
              <span>
                {label}
                <br />
                {run.placements.length} {run.placements.length === 1 ? 'blank' : 'blanks'}
                {several && (
                  <>
                    <br />
                    {stocks[cardOf(run)]?.name ?? cardOf(run)}
                  </>
                )}
              </span>
            </Button>
          </li>
        );
      })}
    </ul>
  );
}
