/** What takes room from the sheet, each with its hatch, to be switched off and on. */
import { Button } from 'react-bootstrap';

import type { TakenBy } from '../api/generated/types';
import { HATCHES, HatchSwatch, TAKEN_BY } from '../board/hatches';

type What = TakenBy | 'cut-window' | 'print-window';

interface Props {
  taken: ReadonlySet<TakenBy>;
  hidden: ReadonlySet<string>;
  onToggle: (what: What) => void;
}

export function WindowLegend({ taken, hidden, onToggle }: Props) {
  const windows: [What, string][] = [
    ['cut-window', 'cut window'],
    ['print-window', 'print window'],
  ];
  const takers = TAKEN_BY.filter((by) => taken.has(by)).map((by): [What, string] => [
    by,
    HATCHES[by].name,
  ]);
  return (
    <ul className="legend legend-window" aria-label="What takes room">
      {[...windows, ...takers].map(([what, name]) => (
        <li key={what}>
          <Button variant="bare" aria-pressed={!hidden.has(what)} onClick={() => onToggle(what)}>
            <Swatch what={what} />
            {name}
          </Button>
        </li>
      ))}
    </ul>
  );
}

function Swatch({ what }: { what: What }) {
  if (what !== 'cut-window' && what !== 'print-window') return <HatchSwatch by={what} />;
  return (
    <svg viewBox="0 0 24 14" aria-hidden="true">
      <rect className={`window ${what}`} x="1" y="1" width="22" height="12" />
    </svg>
  );
}
