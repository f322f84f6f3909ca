/**
 * The fit strip: every limit with value, bound and room left, by stage. The stage at hand, or the next that has limits,
 * comes first; of the others what fits is folded away.
 */
import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import type { Check, Stage, State } from '../api/generated/types';
import { useMeta } from '../api/queries';
import { Limit } from './Limit';
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
  const stages = useMeta().data?.stages ?? [];
  // Stages whose fold is not as it is by itself: the first open, the others closed.
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  const count = (state: State) => checks.filter((check) => check.state === state).length;
  const all = stages.map((of) => ({
    ...of,
    own: checks.filter((check) => check.stage === of.stage),
  }));
  // Where the stage at hand has no limits, the next that has some.
  const at = all.findIndex((group) => group.stage === stage);
  const first = all.find(({ own }, place) => place >= at && own.length > 0)?.stage;
  const groups = all
    .filter(({ own }) => own.length > 0)
    .sort((a, b) => Number(b.stage === first) - Number(a.stage === first));
  const row = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // With another stage at hand its limits are the ones to be seen, not those that lay there before.
    row.current?.scrollTo({ left: 0 });
    row.current
      ?.querySelector('[aria-pressed="true"]')
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [first]);
  const turn = (which: string) => {
    const next = new Set(turned);
    if (!next.delete(which)) next.add(which);
    setTurned(next);
  };
  return (
    <section className={`fit-strip${isCurrent ? '' : ' is-stale'}`} aria-label="Fit strip">
      <div className="fit-sum" role="status">
        {SUMS.map(([state, words]) => (
          <span key={state} className={count(state) > 0 ? `fit-sum-${state}` : undefined}>
            {count(state)} {words}
          </span>
        ))}
      </div>
      <div className="fit-row" ref={row}>
        {groups.map(({ stage: of, name, own }) => {
          const fits = own.filter(({ state }) => state === 'fits').length;
          const fold = `${of} ${of === first ? 'first' : 'later'}`;
          const isOpen = (of === first) !== turned.has(fold);
          // What the user points at stays to be seen.
          const shown = own
            .filter(({ id, state }) => isOpen || state !== 'fits' || id === chosen)
            .sort((a, b) => ORDER[a.state] - ORDER[b.state]);
          return (
            <section key={of} className="fit-stage" aria-label={`${name}: limits`}>
              <Button
                variant="bare"
                className="fit-fold"
                aria-expanded={isOpen}
                disabled={fits === 0}
                title={isOpen ? 'Fold away what fits' : 'Show what fits'}
                onClick={() => turn(fold)}
              >
                <b>{name}</b>
                {fits > 0 && (
                  <span>
                    <StateMark state="fits" /> {fits} fit
                  </span>
                )}
              </Button>
              <ul>
                {shown.map((check) => (
                  <Limit
                    key={check.id}
                    check={check}
                    isChosen={chosen === check.id}
                    onChoose={() => onChoose(chosen === check.id ? null : check.id)}
                  />
                ))}
              </ul>
            </section>
          );
        })}
      </div>
    </section>
  );
}
