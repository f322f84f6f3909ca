/** The route: a steel rule with a station for each stage, and how each stands. */
import { Link } from 'react-router';

import { useMeta } from '../api/queries';
import type { Stage } from '../api/generated/types';
import type { Preview } from '../api/views';
import { StateMark } from '../fit/StateMark';

export function Route({
  id,
  stage,
  preview,
}: {
  id: number;
  stage: Stage;
  preview: Preview | null;
}) {
  const stages = useMeta().data?.stages ?? [];
  return (
    <nav className="route" aria-label="Route">
      <ol>
        {stages.map((station) => {
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
