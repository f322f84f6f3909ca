/** What can be done to the chosen copies. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import type { AlignTo, Placement, UnitInfo } from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import type { HandLayout } from './useHandLayout';

interface Props {
  hand: HandLayout;
  placements: Placement[];
  /** The plan's distance between copies, mm: the gaps to repeat with, unless others are set. */
  spacing: number;
  unit: UnitInfo;
}

/** A line, and two bars that stand to it as the copies will. */
const ALIGNS: { to: AlignTo; title: string; line: string; bars: string }[] = [
  { to: 'left', title: 'Left edges', line: 'M2 1V15', bars: 'M3 3h11v4h-11zM3 9h6v4h-6z' },
  { to: 'middle', title: 'Middles across', line: 'M8 1V15', bars: 'M2 3h12v4h-12zM5 9h6v4h-6z' },
  { to: 'right', title: 'Right edges', line: 'M14 1V15', bars: 'M2 3h11v4h-11zM7 9h6v4h-6z' },
  { to: 'top', title: 'Top edges', line: 'M1 2H15', bars: 'M3 3v11h4v-11zM9 3v6h4v-6z' },
  { to: 'centre', title: 'Middles down', line: 'M1 8H15', bars: 'M3 2v12h4v-12zM9 5v6h4v-6z' },
  { to: 'bottom', title: 'Bottom edges', line: 'M1 14H15', bars: 'M3 2v11h4v-11zM9 7v6h4v-6z' },
];

export function HandTools({ hand, placements, spacing, unit }: Props) {
  const [grid, setGrid] = useState({ columns: 2, rows: 1, across: spacing, down: spacing });
  const [isGridOpen, setGridOpen] = useState(false);
  const [degrees, setDegrees] = useState('5');
  const chosen = [...hand.chosen];
  const locked = chosen.filter((at) => placements[at]?.locked).length;
  const count = chosen.length === 1 ? '1 copy' : `${chosen.length} copies`;
  return (
    <section className="hand-tools" aria-label="Chosen copies">
      <p className="hand-sum">
        <b>{count}</b>
        {locked > 0 && <span>, {locked} locked</span>}
        <span
          role="status"
          className={hand.clearance && !hand.clearance.is_enough ? 'hand-short' : 'hand-clear'}
        >
          {hand.trouble ?? hand.clearance?.text}
        </span>
      </p>
      <div className="hand-row" role="group" aria-label="Align">
        {ALIGNS.map(({ to, title, line, bars }) => (
          <Button
            variant="bare"
            key={to}
            title={chosen.length > 1 ? title : `${title}: to the window`}
            aria-label={title}
            onClick={() => void hand.act({ act: 'align', to })}
          >
            <svg viewBox="0 0 16 16" aria-hidden="true">
              <path className="align-bars" d={bars} />
              <path className="align-line" d={line} />
            </svg>
          </Button>
        ))}
        <Button
          variant="bare"
          title="Equal gaps across"
          disabled={chosen.length < 3}
          onClick={() => void hand.act({ act: 'distribute', along: 'across' })}
        >
          ⇹
        </Button>
        <Button
          variant="bare"
          title="Equal gaps down"
          disabled={chosen.length < 3}
          onClick={() => void hand.act({ act: 'distribute', along: 'down' })}
        >
          <span className="upright">⇹</span>
        </Button>
      </div>
      <div className="hand-row" role="group" aria-label="Turn and keep">
        <Button
          variant="bare"
          title="Turn by a quarter (R)"
          onClick={() => void hand.act({ act: 'turn', degrees: 90 })}
        >
          ↻ 90°
        </Button>
        <form
          className="hand-turn"
          onSubmit={(event) => {
            event.preventDefault();
            const by = Number(degrees.replace(',', '.'));
            if (degrees.trim() !== '' && Number.isFinite(by))
              void hand.act({ act: 'turn', degrees: by });
          }}
        >
          <input
            aria-label="Turn by degrees"
            title="Degrees to turn by, clockwise; Enter turns"
            inputMode="decimal"
            value={degrees}
            onChange={(event) => setDegrees(event.target.value)}
          />
          °
        </form>
        <Button
          variant="bare"
          title="Locked copies stay when the others are laid again (L)"
          aria-pressed={locked === chosen.length}
          onClick={() => void hand.act({ act: locked === chosen.length ? 'unlock' : 'lock' })}
        >
          {locked === chosen.length ? 'Unlock' : 'Lock'}
        </Button>
        <Button variant="bare" aria-expanded={isGridOpen} onClick={() => setGridOpen(!isGridOpen)}>
          Repeat
        </Button>
        <Button
          variant="bare"
          title="Take off the sheet (Delete)"
          onClick={() => void hand.act({ act: 'remove' })}
        >
          Remove
        </Button>
      </div>
      {isGridOpen && (
        <form
          className="hand-grid"
          onSubmit={(event) => {
            event.preventDefault();
            void hand.act({ act: 'grid', ...grid });
            setGridOpen(false);
          }}
        >
          {(['columns', 'rows'] as const).map((side) => (
            <label key={side}>
              {side}
              <input
                type="number"
                min={1}
                max={200}
                value={grid[side]}
                onChange={(event) => {
                  const number = Math.max(1, Math.round(Number(event.target.value)));
                  setGrid({ ...grid, [side]: number });
                }}
              />
            </label>
          ))}
          <PlainLength
            label="gap across"
            value={grid.across}
            unit={unit}
            onKeep={(across) => setGrid({ ...grid, across })}
          />
          <PlainLength
            label="gap down"
            value={grid.down}
            unit={unit}
            onKeep={(down) => setGrid({ ...grid, down })}
          />
          <Button type="submit" size="sm">
            Repeat
          </Button>
        </form>
      )}
    </section>
  );
}
