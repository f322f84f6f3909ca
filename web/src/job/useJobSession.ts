/**
 * An open job: what is saved, what is being tried, and how the two differ.
 *
 * A change is first proposed (core previews it, nothing is saved), then kept (saved as a revision).
 * Saves go out one after the other, each naming the version that the one before it made.
 */
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';

import { api, Failure } from '../api/client';
import type { InputError, Job, OpenJob, Preview } from '../api/generated/types';

export type Saving = 'saved' | 'draft' | 'saving' | 'not-saved';

export interface JobSession {
  /** The job on the screen, with what is being tried. */
  job: Job;
  /** The last preview that core could make. */
  preview: Preview | null;
  /** False while the drawing shows an older state than the figures. */
  isCurrent: boolean;
  errors: InputError[];
  saving: Saving;
  /** Why the last save did not succeed. */
  trouble: string | null;
  /** True when another window changed the job. */
  isConflict: boolean;
  canUndo: boolean;
  canRedo: boolean;
  /** Previews a change. */
  propose: (change: (job: Job) => Job) => void;
  /** Saves what is being tried, after a last change if one is given; false when it cannot be. */
  keep: (change?: (job: Job) => Job) => Promise<boolean>;
  /** Drops what is being tried. */
  drop: () => void;
  undo: () => void;
  redo: () => void;
  /** Tries the last save again. */
  retry: () => void;
  /** Takes the other window's state. */
  reload: () => void;
  /** Saves what is on the screen as a new job and returns its number. */
  keepAsCopy: () => Promise<number | null>;
}

export function useJobSession(opened: OpenJob): JobSession {
  const client = useQueryClient();
  const [saved, setSaved] = useState(opened);
  const [job, setJob] = useState(opened.job);
  const [preview, setPreview] = useState(opened.preview);
  const [errors, setErrors] = useState(opened.errors);
  const [isCurrent, setCurrent] = useState(opened.errors.length === 0);
  const [saving, setSaving] = useState<Saving>('saved');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [isConflict, setConflict] = useState(false);

  // What callbacks need at once, before React renders again.
  const latest = useRef({ saved: opened, job: opened.job, busy: Promise.resolve() });
  const asking = useRef<AbortController | null>(null);
  useEffect(() => () => asking.current?.abort(), []);

  const show = useCallback(
    (next: OpenJob) => {
      asking.current?.abort();
      latest.current.saved = next;
      latest.current.job = next.job;
      setSaved(next);
      setJob(next.job);
      setErrors(next.errors);
      setCurrent(next.errors.length === 0);
      if (next.preview) setPreview(next.preview);
      setSaving('saved');
      setTrouble(null);
      setConflict(false);
      void client.invalidateQueries({ queryKey: ['jobs'] });
      void client.invalidateQueries({ queryKey: ['files', next.id] });
    },
    [client],
  );

  const fail = useCallback((error: unknown) => {
    if (!(error instanceof Failure)) throw error;
    setSaving('not-saved');
    if (error.isConflict) {
      setConflict(true);
    } else if (error.problem.errors.length > 0) {
      // Said next to the figure; what is saved stays as it was.
      setErrors(error.problem.errors);
      setCurrent(false);
      setSaving('draft');
    } else {
      setTrouble(error.message);
    }
  }, []);

  const ask = useCallback((next: Job) => {
    asking.current?.abort();
    const asked = new AbortController();
    asking.current = asked;
    setCurrent(false);
    api
      .preview(next, asked.signal)
      .then((seen) => {
        if (asked.signal.aborted) return;
        setPreview(seen);
        setErrors([]);
        setCurrent(true);
      })
      .catch((error: unknown) => {
        if (asked.signal.aborted || !(error instanceof Failure)) return;
        setErrors(error.problem.errors);
        if (error.problem.errors.length === 0) setTrouble(error.message);
      });
  }, []);

  const propose = useCallback(
    (change: (job: Job) => Job) => {
      const next = change(latest.current.job);
      latest.current.job = next;
      setJob(next);
      setSaving('draft');
      ask(next);
    },
    [ask],
  );

  /** One request after the other, each told the version that the one before it made. */
  const inTurn = useCallback(
    (request: (version: number) => Promise<OpenJob>, wanted: Job | null): Promise<boolean> => {
      setSaving('saving');
      const done = latest.current.busy.then(async () => {
        try {
          const next = await request(latest.current.saved.version);
          latest.current.saved = next;
          // A newer change is on its way: only the version counts then.
          if (wanted === null || latest.current.job === wanted) show(next);
          return true;
        } catch (error) {
          fail(error);
          return false;
        }
      });
      latest.current.busy = done.then(() => undefined);
      return done;
    },
    [fail, show],
  );

  const keep = useCallback(
    (change?: (job: Job) => Job) => {
      if (change) propose(change);
      const wanted = latest.current.job;
      return inTurn((version) => api.saveJob(opened.id, version, wanted), wanted);
    },
    [inTurn, opened.id, propose],
  );

  const drop = useCallback(() => {
    show(latest.current.saved);
  }, [show]);

  const undo = useCallback(
    () => void inTurn((version) => api.undo(opened.id, version), null),
    [inTurn, opened.id],
  );
  const redo = useCallback(
    () => void inTurn((version) => api.redo(opened.id, version), null),
    [inTurn, opened.id],
  );
  const reload = useCallback(() => {
    api.openJob(opened.id).then(show).catch(fail);
  }, [fail, opened.id, show]);

  const keepAsCopy = useCallback(async () => {
    const copy = { ...latest.current.job, name: `${latest.current.job.name} (copy)` };
    try {
      return (await api.createJob(copy)).id;
    } catch (error) {
      fail(error);
      return null;
    }
  }, [fail]);

  return {
    job,
    preview,
    isCurrent,
    errors,
    saving,
    trouble,
    isConflict,
    canUndo: saved.can_undo,
    canRedo: saved.can_redo,
    propose,
    keep,
    drop,
    undo,
    redo,
    retry: () => void keep(),
    reload,
    keepAsCopy,
  };
}
