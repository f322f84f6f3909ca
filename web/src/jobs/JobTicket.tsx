/** A job in the list: as it is folded and flat, its size, its sheets and how it stands. */
import { useCallback, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import { Link } from 'react-router';

import type { JobSummary } from '../api/generated/types';
import { StateMark } from '../fit/StateMark';
import { JobFlat } from './JobFlat';

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
          <JobFlat job={job} isWorn={isSeen && !job.folded} />
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
