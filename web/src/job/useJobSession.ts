/**
 * An open job: what is saved, what is being tried, and how the two differ.
 *
 * A change is first proposed (core previews it, nothing is saved), then kept (saved as a revision). The page sends
 * what is changed; the server makes the change and answers with the job as it is then.
 * Saves go out one after the other, each naming the version that the one before it made.
 */
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';

import { api, Failure } from '../api/client';
import { set, valueAfter, withChange } from '../api/fields';
import type { FieldChange, InputError, Job } from '../api/generated/types';
import type { OpenJob, Preview } from '../api/views';

export type Saving = 'saved' | 'draft' | 'saving' | 'not-saved';

export interface JobSession {
  /** The job on the screen, with what is being tried. */
  job: Job;
  /** The version that is saved. */
  version: number;
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
  /** The newest job that the server has answered with, for what goes on between two drawings of the page. */
  latest: () => Job;
  /** What a field will be once all that is on its way has arrived: for steps that follow one another faster than answers. */
  newest: (field: string) => unknown;
  /** Previews changes. */
  propose: (...changes: FieldChange[]) => void;
  /** Saves what is being tried, after last changes if any are given; false when it cannot be. */
  keep: (...changes: FieldChange[]) => Promise<boolean>;
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

/** What callbacks need at once, before React renders again. */
interface Latest {
  saved: OpenJob;
  /** The job as the server last answered. */
  job: Job;
  /** Changes on their way to being saved, and those that came since. */
  sent: FieldChange[];
  changes: FieldChange[];
  busy: Promise<unknown>;
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

  const latest = useRef<Latest>({
    saved: opened,
    job: opened.job,
    sent: [],
    changes: [],
    busy: Promise.resolve(),
  });
  const asking = useRef<AbortController | null>(null);
  useEffect(() => () => asking.current?.abort(), []);

  const showJob = useCallback((next: Job) => {
    latest.current.job = next;
    setJob(next);
  }, []);

  const show = useCallback(
    (next: OpenJob) => {
      asking.current?.abort();
      latest.current.saved = next;
      latest.current.changes = [];
      showJob(next.job);
      setSaved(next);
      setErrors(next.errors);
      setCurrent(next.errors.length === 0);
      if (next.preview) setPreview(next.preview);
      setSaving('saved');
      setTrouble(null);
      setConflict(false);
      void client.invalidateQueries({ queryKey: ['jobs'] });
      void client.invalidateQueries({ queryKey: ['files', next.id] });
    },
    [client, showJob],
  );

  /** Asks what the job comes to with all that is being tried. */
  const ask = useCallback(() => {
    asking.current?.abort();
    const asked = new AbortController();
    asking.current = asked;
    setCurrent(false);
    const { saved: base, sent, changes } = latest.current;
    api
      .preview(base.job, [...sent, ...changes], asked.signal)
      .then(({ job: changed, preview: seen }) => {
        if (asked.signal.aborted) return;
        showJob(changed);
        setPreview(seen);
        setErrors([]);
        setCurrent(true);
      })
      .catch((error: unknown) => {
        if (asked.signal.aborted || !(error instanceof Failure)) return;
        if (error.problem.job) showJob(error.problem.job);
        setErrors(error.problem.errors);
        if (error.problem.errors.length === 0) setTrouble(error.message);
      });
  }, [showJob]);

  const fail = useCallback(
    (error: unknown) => {
      if (!(error instanceof Failure)) throw error;
      setSaving('not-saved');
      if (error.isConflict) {
        setConflict(true);
      } else if (error.problem.errors.length > 0) {
        // Said next to the figure; what is saved stays as it was.
        if (error.problem.job) showJob(error.problem.job);
        setErrors(error.problem.errors);
        setCurrent(false);
        setSaving('draft');
        return;
      } else {
        setTrouble(error.message);
      }
      // What is being tried is shown all the same.
      ask();
    },
    [ask, showJob],
  );

  const note = useCallback((changes: FieldChange[]) => {
    latest.current.changes = changes.reduce(withChange, latest.current.changes);
  }, []);

  const propose = useCallback(
    (...changes: FieldChange[]) => {
      note(changes);
      setSaving('draft');
      ask();
    },
    [ask, note],
  );

  /** One request after the other, each told the version that the one before it made. */
  const inTurn = useCallback(
    (request: (version: number) => Promise<OpenJob | null>): Promise<boolean> => {
      setSaving('saving');
      const done = latest.current.busy.then(async () => {
        try {
          const next = await request(latest.current.saved.version);
          latest.current.sent = [];
          if (next === null) {
            setSaving(latest.current.changes.length > 0 ? 'draft' : 'saved');
          } else if (latest.current.changes.length === 0) {
            show(next);
          } else {
            // A newer change is on its way.
            latest.current.saved = next;
            setSaved(next);
          }
          return true;
        } catch (error) {
          latest.current.changes = latest.current.changes.reduce(withChange, latest.current.sent);
          latest.current.sent = [];
          fail(error);
          return false;
        }
      });
      latest.current.busy = done;
      return done;
    },
    [fail, show],
  );

  const keep = useCallback(
    (...changes: FieldChange[]) => {
      note(changes);
      return inTurn((version) => {
        const { changes: tried } = latest.current;
        // What was being tried may have gone out with the save before.
        if (tried.length === 0) return Promise.resolve(null);
        latest.current.sent = tried;
        latest.current.changes = [];
        return api.saveJob(opened.id, version, tried);
      });
    },
    [inTurn, note, opened.id],
  );

  const drop = useCallback(() => {
    show(latest.current.saved);
  }, [show]);

  /** A step drops what is being tried. */
  const step = useCallback(
    (request: (id: number, version: number) => Promise<OpenJob>) =>
      void inTurn((version) =>
        request(opened.id, version).then((next) => {
          latest.current.changes = [];
          return next;
        }),
      ),
    [inTurn, opened.id],
  );
  const undo = useCallback(() => {
    step(api.undo);
  }, [step]);
  const redo = useCallback(() => {
    step(api.redo);
  }, [step]);
  const reload = useCallback(() => {
    api.openJob(opened.id).then(show).catch(fail);
  }, [fail, opened.id, show]);

  const keepAsCopy = useCallback(async () => {
    const { saved: base, sent, changes } = latest.current;
    const renamed = set('name', `${base.job.name} (copy)`);
    try {
      const { job: copy } = await api.preview(base.job, [...sent, ...changes, renamed]);
      return (await api.createJob(copy)).id;
    } catch (error) {
      fail(error);
      return null;
    }
  }, [fail]);

  return {
    job,
    version: saved.version,
    preview,
    isCurrent,
    errors,
    saving,
    trouble,
    isConflict,
    canUndo: saved.can_undo,
    canRedo: saved.can_redo,
    latest: useCallback(() => latest.current.job, []),
    newest: useCallback((field: string) => {
      const { saved: base, sent, changes } = latest.current;
      return valueAfter(base.job, [...sent, ...changes], field);
    }, []),
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
