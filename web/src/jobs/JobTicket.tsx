/** A job in the list: as it is folded and flat, its size, its sheets and how it stands. */
import { useCallback, useId, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import { Link } from 'react-router';

import type { JobSummary } from '../api/generated/types';
import { StateMark } from '../fit/StateMark';

/** True from when an element first comes into view: what is not seen need not be drawn. */
function useSeen(): [boolean, (element: HTMLElement | null) => void] {
  const [isSeen, setSeen] = useState(false);
  const watch = useRef<IntersectionObserver | null>(null);
  const ref = useCallback((element: HTMLElement | null) => {
    watch.current?.disconnect();
    if (!element) return;
    watch.current = new IntersectionObserver((entries) => {
      if (entries.some((entry) => entry.isIntersecting)) setSeen(true);
    });
    watch.current.observe(element);
  }, []);
  return [isSeen, ref];
}

interface Props {
  job: JobSummary;
  onBin: () => void;
  onCopy: () => void;
}

export function JobTicket({ job, onBin, onCopy }: Props) {
  const { drawing } = job;
  const clip = useId();
  const [isSeen, ticket] = useSeen();
  const state = job.state ?? 'broken';
  return (
    <article
      ref={ticket}
      className={`ticket ticket-${job.is_current || job.drawing ? state : 'fits'}`}
      aria-busy={!job.is_current}
    >
      <Link to={`/jobs/${job.id}/form`} className="ticket-open">
        <span className={`ticket-drawing${job.folded ? ' is-folded' : ''}`}>
          {job.folded && isSeen && <img src={job.folded} alt={`${job.name}, closed`} />}
          {drawing && (
            <svg
              viewBox={`-2 -2 ${drawing.size[0] + 4} ${drawing.size[1] + 4}`}
              role="img"
              aria-label={`Flat of ${job.name}`}
            >
              <path d={drawing.outline} fill={drawing.colour} fillRule="evenodd" />
              {isSeen && job.art && !job.folded && (
                <>
                  <clipPath id={clip}>
                    <path d={drawing.outline} clipRule="evenodd" />
                  </clipPath>
                  <g clipPath={`url(#${clip})`}>
                    <image
                      href={job.art.path}
                      x={job.art.at[0]}
                      y={job.art.at[1]}
                      width={job.art.at[2]}
                      height={job.art.at[3]}
                      preserveAspectRatio="none"
                    />
                  </g>
                </>
              )}
              <path className="small-blank" d={drawing.outline} fill="none" />
              <path className="line crease" d={drawing.creases} />
            </svg>
          )}
        </span>
        <span className="ticket-name">{job.name}</span>
        <span className="ticket-structure">{job.structure}</span>
        <span className="ticket-size figure">{job.size}</span>
        <span className="ticket-stock">{job.stock}</span>
      </Link>
      <footer>
        <span className="ticket-count">
          <b className="figure">{job.copies}</b> {job.copies === 1 ? 'copy' : 'copies'} on{' '}
          <b className="figure">{job.sheets || '–'}</b> {job.sheets === 1 ? 'sheet' : 'sheets'}
        </span>
        <span className={`ticket-state limit-${state}`}>
          {job.is_current || job.drawing ? (
            <>
              <StateMark state={state} /> {job.verdict}
            </>
          ) : (
            'being worked out …'
          )}
        </span>
        <Button variant="plain" onClick={onCopy} aria-label={`Copy ${job.name}`}>
          copy
        </Button>
        <Button variant="plain" onClick={onBin} aria-label={`Put ${job.name} into the bin`}>
          bin
        </Button>
      </footer>
    </article>
  );
}
