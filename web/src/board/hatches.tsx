/** The hatch of each thing that takes room, so that they differ by more than colour. */
import { useId } from 'react';

import type { TakenBy } from '../api/generated/types';

export const HATCHES: Record<TakenBy, { turn: number; gap: number; name: string }> = {
  'printer-margin': { turn: 45, gap: 2.5, name: 'not printable' },
  'roller-strips': { turn: -45, gap: 3.5, name: 'rollers, clamps' },
  'cutter-reach': { turn: -45, gap: 6, name: 'out of reach' },
  'lead-tail': { turn: 90, gap: 3, name: 'lead and tail' },
  carrier: { turn: 20, gap: 3.5, name: 'off the carrier' },
  'roll-sides': { turn: 70, gap: 3, name: 'roll’s sides' },
  'outside-marks': { turn: 0, gap: 3.5, name: 'outside the marks' },
  swivel: { turn: 10, gap: 2, name: 'room to swivel' },
  eye: { turn: 62, gap: 5, name: 'eye reads nothing' },
  'keep-clear': { turn: -45, gap: 1.8, name: 'keep-clear' },
  sign: { turn: 90, gap: 1.2, name: 'turned-sheet sign' },
};

export const TAKEN_BY = Object.keys(HATCHES) as TakenBy[];

/** The patterns, their ids beginning with `name`; `scale` widens them for large drawings. */
export function HatchPatterns({ name, scale = 1 }: { name: string; scale?: number }) {
  return (
    <>
      {TAKEN_BY.map((by) => (
        <Hatch key={by} id={name + by} by={by} gap={HATCHES[by].gap * scale} />
      ))}
    </>
  );
}

/** The swatch of a hatch, for a legend. */
export function HatchSwatch({ by }: { by: TakenBy }) {
  const id = useId();
  const gap = HATCHES[by].gap * 1.4;
  return (
    <svg viewBox="0 0 24 14" aria-hidden="true">
      <defs>
        <Hatch id={id} by={by} gap={gap} />
      </defs>
      <rect className="swatch" x="0.5" y="0.5" width="23" height="13" fill={`url(#${id})`} />
    </svg>
  );
}

function Hatch({ id, by, gap }: { id: string; by: TakenBy; gap: number }) {
  return (
    <pattern
      id={id}
      width={gap}
      height={gap}
      patternUnits="userSpaceOnUse"
      patternTransform={`rotate(${HATCHES[by].turn})`}
    >
      <line className={`hatch hatch-${by}`} x1="0" y1="0" x2="0" y2={gap} />
    </pattern>
  );
}
