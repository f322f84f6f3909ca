/** The kinds of line in a flat, each as it is drawn. */
import type { FlatView, LineKind } from '../api/generated/types';

const ORDER: LineKind[] = [
  'cut',
  'kiss-cut',
  'crease',
  'reverse-crease',
  'score',
  'perforation',
  'guide',
];

export function Legend({ flat }: { flat: FlatView }) {
  const kinds = new Set<LineKind>([flat.edge, ...flat.lines.map(({ kind }) => kind)]);
  const hasGlue = flat.panels.some(({ role }) => role === 'glue');
  return (
    <ul className="legend" aria-label="Lines">
      {ORDER.filter((kind) => kinds.has(kind)).map((kind) => (
        <li key={kind}>
          <svg viewBox="0 0 34 6" aria-hidden="true">
            <path className={`line ${kind}`} d="M0 3H34" />
          </svg>
          {kind.replace('-', ' ')}
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
