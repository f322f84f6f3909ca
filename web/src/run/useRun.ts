/** The newest print of a job and its run: asked for, and changed by one thing at a time. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';

import { api, Failure } from '../api/client';
import type { RunChange, RunView } from '../api/generated/types';

export interface Running {
  view: RunView | null;
  isBusy: boolean;
  /** Why the last change was not made, or why nothing is known. */
  trouble: string | null;
  /** Freezes what is printed. */
  freeze: (version: number) => void;
  /** Changes the run; false where it was not. */
  change: (change: RunChange) => Promise<boolean>;
}

export function useRun(id: number, code: string): Running {
  const client = useQueryClient();
  const [isBusy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  // Asked again for every state of the job: it may differ from what was printed.
  const key = ['run', id, code];
  const found = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => api.run(id, signal),
    placeholderData: (before) => before,
    refetchOnWindowFocus: true,
  });
  const view = found.data ?? null;
  const make = async (work: Promise<RunView>) => {
    setBusy(true);
    setTrouble(null);
    try {
      client.setQueryData(key, await work);
      return true;
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
      await client.invalidateQueries({ queryKey: ['run', id] });
      return false;
    } finally {
      setBusy(false);
    }
  };
  return {
    view,
    isBusy,
    trouble: trouble ?? (found.error instanceof Failure ? found.error.message : null),
    freeze: (version) => void make(api.freeze(id, version)),
    change: (change) => {
      const run = view?.run;
      if (!run) return Promise.resolve(false);
      return make(api.changeRun(run.id, { version: run.version, change }));
    },
  };
}
