/** The route: a steel rule with a station for each stage, and how each stands. */
import { Link } from 'react-router';

import type { Preview, Stage } from '../api/generated/types';
import { StateMark } from '../fit/StateMark';
import { STAGES } from './stages';

export function Route({
  id,
  stage,
  preview,
}: {
  id: number;
  stage: Stage;
  preview: Preview | null;
}) {
  return (
    <nav className="route" aria-label="Route">
      <ol>
        {STAGES.map((station) => {
          const state =
            preview?.stages.find((known) => known.stage === station.stage)?.state ?? null;
          return (
            <li key={station.stage}>
              <Link
                to={`/jobs/${id}/${station.stage}`}
                className="station"
                aria-current={station.stage === stage ? 'step' : undefined}
              >
                {station.name}
                <StateMark state={state} />
              </Link>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
