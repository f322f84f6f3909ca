/** The kinds of line in a flat, each as it is drawn. */
import { useMeta } from '../api/queries';
import type { LineKind } from '../api/generated/types';
import type { FlatView } from '../api/views';

export function Legend({ flat }: { flat: FlatView }) {
  const lines = useMeta().data?.lines ?? [];
  const kinds = new Set<LineKind>([flat.edge, ...flat.lines.map(({ kind }) => kind)]);
  const hasGlue = flat.panels.some(({ role }) => role === 'glue');
  return (
    <ul className="legend" aria-label="Lines">
      {lines
        .filter(({ kind }) => kinds.has(kind))
        .map(({ kind, name }) => (
          <li key={kind}>
            <svg viewBox="0 0 34 6" aria-hidden="true">
              <path className={`line ${kind}`} d="M0 3H34" />
            </svg>
            {name}
          </li>
        ))}
      {hasGlue && (
        <li>
          <svg viewBox="0 0 34 10" aria-hidden="true">
            <rect width="34" height="10" fill="url(#glue)" />
          </svg>
          glue
        </li>
      )}
    </ul>
  );
}
