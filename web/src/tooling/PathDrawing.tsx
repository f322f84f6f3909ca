/** The path of the tools: what is done by a moment, what comes, travel dotted, and the tool where it is. */
import { memo } from 'react';

import type { StretchView, ToolingView } from '../api/generated/types';

interface Props {
  view: ToolingView;
  /** The moment, s. */
  now: number;
  /** The operation that is pointed at. */
  chosen: number | null;
}

export function PathDrawing({ view, now, chosen }: Props) {
  const isTimed = view.seconds !== null;
  const all = view.stretches;
  const done = isTimed ? all.filter(({ begins, takes }) => begins + takes <= now) : all;
  const current = isTimed
    ? all.find(({ begins, takes }) => begins <= now && now < begins + takes)
    : undefined;
  const kind = (own: StretchView) => view.operations[own.operation]?.kind ?? 'cut';
  const travel = done
    .map((own, at) => {
      const before = at === 0 ? null : done[at - 1];
      return before ? `M${before.to.join(' ')}L${own.from.join(' ')}` : '';
    })
    .join('');
  const first = all[0];
  return (
    <g className="tool-path">
      <ToCome all={all} />
      <path d={travel} className="travel" />
      {done.map((own, at) => (
        <path
          key={at}
          d={own.line}
          className={`done line-${kind(own)}${
            chosen !== null && own.operation === chosen ? ' is-chosen' : ''
          }`}
        />
      ))}
      {current && <path d={current.line} className={`now line-${kind(current)}`} />}
      {first && <circle className="tool-start" cx={first.from[0]} cy={first.from[1]} r={1.6} />}
      {current && <circle className="tool-now" cx={current.from[0]} cy={current.from[1]} r={2.2} />}
    </g>
  );
}

/** All that will be done; it stays as it is while the moment moves. */
const ToCome = memo(function ToCome({ all }: { all: StretchView[] }) {
  return <path d={all.map(({ line }) => line).join('')} className="to-come" />;
});
