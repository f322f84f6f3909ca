/** The fit strip: every limit with value, bound and room left; the worst first. */
import type { Check, Stage, State } from '../api/generated/types';
import { Gauge } from './Gauge';
import { StateMark } from './StateMark';

const ORDER: Record<State, number> = { broken: 0, attention: 1, fits: 2 };

const SUMS: [State, string][] = [
  ['broken', 'broken'],
  ['attention', 'to look at'],
  ['fits', 'fit'],
];

interface Props {
  checks: Check[];
  stage: Stage;
  chosen: string | null;
  onChoose: (id: string | null) => void;
  isCurrent: boolean;
}

export function FitStrip({ checks, stage, chosen, onChoose, isCurrent }: Props) {
  const away = (check: Check) => (check.stage === stage ? 0 : 1);
  const sorted = [...checks].sort((a, b) => ORDER[a.state] - ORDER[b.state] || away(a) - away(b));
  const count = (state: State) => checks.filter((check) => check.state === state).length;
  return (
    <section className={`fit-strip${isCurrent ? '' : ' is-stale'}`} aria-label="Fit strip">
      <div className="fit-sum" role="status">
        {SUMS.map(([state, words]) => (
          <span key={state} className={count(state) > 0 ? `fit-sum-${state}` : undefined}>
            {count(state)} {words}
          </span>
        ))}
      </div>
      <ul className="fit-row">
        {sorted.map((check) => (
          <li key={check.id}>
            <button
              type="button"
              className={`limit limit-${check.state}`}
              aria-pressed={chosen === check.id}
              onClick={() => onChoose(chosen === check.id ? null : check.id)}
            >
              <span className="limit-label">
                <span title={check.label}>{check.label}</span>
                <StateMark state={check.state} />
              </span>
              <span className="limit-figures">
                <b>{check.value_text}</b> {check.bound_text}
              </span>
              {check.gauge ? (
                <Gauge numbers={check.gauge} state={check.state} />
              ) : (
                <span className="gauge-none" />
              )}
              <span className="limit-verdict">{check.verdict}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
