/** The drawing of a step: which way round the sheet goes, and where its first mark is. */
import type { RunStands, RunStepView } from '../api/generated/types';

const WORDS: Partial<Record<RunStepView['kind'], string>> = {
  print: 'The page, printed at 100 %',
  measure: 'The scale is printed beside the pieces',
  load: 'This edge first; the ring is the first mark',
  cut: 'What is cut',
  look: 'Before the sheet comes out',
};

export function StepDrawing({ step, stands }: { step: RunStepView; stands: RunStands }) {
  const lies =
    stands.lies.find(({ sheets }) => sheets[0] <= step.sheet && step.sheet <= sheets[1]) ??
    stands.lies[0];
  if (!lies) return null;
  const { page, marks, outlines, first } = lies;
  const [width, height] = page;
  const isLoading = step.kind === 'load';
  return (
    <figure className="run-drawing">
      <svg
        viewBox={`-10 -26 ${width + 20} ${height + 36}`}
        role="img"
        aria-label={WORDS[step.kind] ?? step.title}
      >
        <rect className="paper-edge is-under" width={width} height={height} />
        <path className="run-outlines" d={outlines} />
        <path className="run-marks" d={marks} />
        {isLoading && (
          <path
            className="run-feed"
            d={`M${width / 2} -4V-20M${width / 2 - 7} -13l7 -9l7 9M0 0H${width}`}
          />
        )}
        {isLoading && first && <circle className="run-first" cx={first[0]} cy={first[1]} r="14" />}
      </svg>
      <figcaption>{WORDS[step.kind] ?? ''}</figcaption>
    </figure>
  );
}
