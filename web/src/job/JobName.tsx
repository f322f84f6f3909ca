/** The job's name, edited in place. */
import { useState } from 'react';

import { set } from '../api/fields';
import type { JobSession } from './useJobSession';

export function JobName({ session }: { session: JobSession }) {
  const [typed, setTyped] = useState<string | null>(null);
  const finish = () => {
    if (typed !== null && typed.trim() !== '' && typed !== session.job.name) {
      void session.keep(set('name', typed.trim()));
    }
    setTyped(null);
  };
  return (
    <input
      className="job-name"
      aria-label="Name of the job"
      value={typed ?? session.job.name}
      maxLength={80}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={finish}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(null);
      }}
    />
  );
}
