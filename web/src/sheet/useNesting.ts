/** Nesting a job on the server: its progress, its best so far, and keeping what it has when it is stopped. */
import { useEffect, useRef, useState } from 'react';

import { api, Failure } from '../api/client';
import { follow } from '../api/events';
import { set } from '../api/fields';
import type { InputError, NestProgress } from '../api/generated/types';
import type { JobSession } from '../job/useJobSession';

export interface Nesting {
  /** What there is so far, while it runs. */
  progress: NestProgress | null;
  isRunning: boolean;
  /** What came of the last run, in words. */
  outcome: string | null;
  trouble: string | null;
  start: () => void;
  /** Ends it and keeps the best so far. */
  stop: () => void;
  /** What was found for a job that was changed meanwhile: it waits to be taken. */
  offered: NestProgress | null;
  /** Takes what is offered. */
  take: () => void;
}

export function useNesting(id: number, session: JobSession): Nesting {
  const [progress, setProgress] = useState<NestProgress | null>(null);
  const [isRunning, setRunning] = useState(false);
  const [outcome, setOutcome] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [offered, setOffered] = useState<NestProgress | null>(null);
  // The job on the screen, for when a search ends.
  const now = useRef(session.job);
  useEffect(() => {
    now.current = session.job;
  });
  const running = useRef<AbortController | null>(null);
  const isStopped = useRef(false);
  // A window that is closed in the middle leaves the layout as it was.
  useEffect(() => () => running.current?.abort(), []);

  const keep = (best: NestProgress) => session.keep(set('sheet.kept', best.kept));

  const start = () => {
    if (running.current) return;
    const control = new AbortController();
    running.current = control;
    isStopped.current = false;
    setRunning(true);
    setTrouble(null);
    setOutcome(null);
    setOffered(null);
    const started = session.job;
    const best: { found: NestProgress | null; isLast: boolean } = { found: null, isLast: false };
    const run = async () => {
      try {
        await follow(`/jobs/${id}/nest`, session.job, control.signal, (name, data) => {
          if (name === 'trouble') {
            const { errors } = data as { errors: InputError[] };
            setTrouble(errors.map((error) => `${error.message}. ${error.remedy.text}`).join(' '));
            best.found = null;
            return;
          }
          best.found = data as NestProgress;
          best.isLast = best.found.is_last;
          setProgress(best.found);
        });
      } catch (error) {
        if (!(error instanceof Failure)) throw error;
        setTrouble(error.message);
      }
      running.current = null;
      setRunning(false);
      setProgress(null);
      const { found, isLast } = best;
      // What was cut off, by the page going away or the server, leaves the layout as it was.
      if (found === null || !(isLast || isStopped.current)) {
        const cutOff = 'The search was cut off; the layout is as it was. Nest again.';
        setTrouble((said) => said ?? cutOff);
        return;
      }
      const seconds = found.seconds.toFixed(1);
      const how = isStopped.current
        ? 'You stopped the search.'
        : found.is_complete
          ? 'The same seed gives it again.'
          : 'The time ended the search; another run may end elsewhere.';
      // What was changed meanwhile is not written over: the layout is offered instead.
      if (now.current !== started) {
        setOffered(found);
        setOutcome(
          `${found.text} after ${seconds} s, for the job as it was. You changed it meanwhile.`,
        );
        return;
      }
      setOutcome(`${found.text} after ${seconds} s. ${how}`);
      await keep(found);
    };
    void run();
  };
  return {
    progress,
    isRunning,
    outcome,
    trouble,
    offered,
    take: () => {
      if (offered) void keep(offered);
      setOffered(null);
      setOutcome(null);
    },
    start,
    stop: () => {
      isStopped.current = true;
      // A server that does not answer is left alone; the best so far is kept all the same.
      api.stopNesting(id).catch(() => running.current?.abort());
    },
  };
}
