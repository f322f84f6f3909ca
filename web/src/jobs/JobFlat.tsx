/** The flat of a job's first piece, small, with what it wears. */
import { useId } from 'react';

import type { JobSummary } from '../api/generated/types';

interface Props {
  job: JobSummary;
  /** Whether its art is drawn: a picture that takes a while. */
  isWorn: boolean;
}

export function JobFlat({ job, isWorn }: Props) {
  const clip = useId();
  const { drawing, art } = job;
  if (!drawing) return null;
  return (
    <svg
      viewBox={`-2 -2 ${drawing.size[0] + 4} ${drawing.size[1] + 4}`}
      role="img"
      aria-label={`Flat of ${job.name}`}
    >
      <path d={drawing.outline} fill={drawing.colour} fillRule="evenodd" />
      {isWorn && art && (
        <>
          <clipPath id={clip}>
            <path d={drawing.outline} clipRule="evenodd" />
          </clipPath>
          <g clipPath={`url(#${clip})`}>
            <image
              href={art.path}
              x={art.at[0]}
              y={art.at[1]}
              width={art.at[2]}
              height={art.at[3]}
              preserveAspectRatio="none"
            />
          </g>
        </>
      )}
      <path className="small-blank" d={drawing.outline} fill="none" />
      <path className="line crease" d={drawing.creases} />
    </svg>
  );
}
