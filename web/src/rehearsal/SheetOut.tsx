/** A sheet as it came out of the printer, lying as it was put into the cutter. */
import type { RehearsalView } from '../api/generated/types';

export function SheetOut({ view }: { view: RehearsalView }) {
  const [width, height] = view.paper;
  const [a, b, c, d, e, f] = view.lying;
  const corners = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ].map(([x = 0, y = 0]) => [a * x + c * y + e, b * x + d * y + f] as const);
  const xs = corners.map(([x]) => x);
  const ys = corners.map(([, y]) => y);
  const [left, top] = [Math.min(0, ...xs) - 6, Math.min(0, ...ys) - 6];
  const [right, foot] = [Math.max(width, ...xs) + 6, Math.max(height, ...ys) + 6];
  return (
    <svg
      className="rehearsal-board"
      viewBox={`${left} ${top} ${right - left} ${foot - top}`}
      role="img"
      aria-label="The sheet as it was printed, on the cutter’s bed"
    >
      <rect className="bed-place" width={width} height={height} />
      <g transform={`matrix(${view.lying.join(' ')})`}>
        {view.picture !== null && (
          <image
            href={`/api/rehearsal/${view.picture}/sheet.png`}
            width={width}
            height={height}
            preserveAspectRatio="none"
          />
        )}
        <rect className="paper-edge" width={width} height={height} />
      </g>
      {view.seen.map(([x, y]) => (
        <g key={`${x} ${y}`} className="seen-mark" transform={`translate(${x} ${y})`}>
          <circle r="5" />
          <path d="M-7 0H7M0 -7V7" />
        </g>
      ))}
    </svg>
  );
}
