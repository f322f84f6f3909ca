/** What takes room from the sheet, each with its hatch, to be switched off and on. */
import type { TakenBy } from '../api/generated/types';

type What = TakenBy | 'cut-window' | 'print-window';

const NAMES: [What, string][] = [
  ['cut-window', 'cut window'],
  ['print-window', 'print window'],
  ['printer-margin', 'not printable'],
  ['cutter-reach', 'out of reach'],
  ['outside-marks', 'outside the marks'],
  ['keep-clear', 'keep-clear'],
  ['sign', 'turned-sheet sign'],
];

interface Props {
  taken: ReadonlySet<TakenBy>;
  hidden: ReadonlySet<string>;
  onToggle: (what: What) => void;
}

export function WindowLegend({ taken, hidden, onToggle }: Props) {
  const shown = NAMES.filter(([what]) => what.endsWith('window') || taken.has(what as TakenBy));
  return (
    <ul className="legend legend-window" aria-label="What takes room">
      {shown.map(([what, name]) => (
        <li key={what}>
          <button type="button" aria-pressed={!hidden.has(what)} onClick={() => onToggle(what)}>
            <svg viewBox="0 0 24 14" aria-hidden="true">
              {what.endsWith('window') ? (
                <rect className={`window ${what}`} x="1" y="1" width="22" height="12" />
              ) : (
                <g className={`swatch swatch-${what}`}>
                  <rect x="0.5" y="0.5" width="23" height="13" />
                  <path
                    d={what === 'printer-margin' ? 'M2 13L13 1M9 13L20 1' : 'M2 1L13 13M9 1L20 13'}
                  />
                </g>
              )}
            </svg>
            {name}
          </button>
        </li>
      ))}
    </ul>
  );
}
