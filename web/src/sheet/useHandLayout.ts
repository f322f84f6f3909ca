/**
 * Moving copies by hand. The server does the moving, snapping and measuring; the page shows a drag at once
 * and takes over what the server answers as soon as it does.
 */
import { useCallback, useEffect, useRef, useState } from 'react';

import { api, Failure } from '../api/client';
import { set } from '../api/fields';
import type { Act, Arranged, Clearance } from '../api/generated/types';
import type { JobSession } from '../job/useJobSession';

export interface Offset {
  x: number;
  y: number;
}

export interface HandLayout {
  chosen: ReadonlySet<number>;
  choose: (chosen: Iterable<number>) => void;
  /** What came of the drag that is going on. */
  trial: Arranged | null;
  /** How near the chosen copies are to the nearest thing. */
  clearance: Clearance | null;
  trouble: string | null;
  /** Does something to the chosen copies and keeps the layout. */
  act: (what: Act, chosen?: Iterable<number>) => Promise<void>;
  /** Asks what a drag so far comes to. */
  try: (by: Offset, snap: number) => void;
  /** Ends a drag without keeping it. */
  drop: () => void;
}

export function useHandLayout(session: JobSession, run: number): HandLayout {
  const [choice, setChoice] = useState<{ run: number; chosen: ReadonlySet<number> }>({
    run,
    chosen: new Set(),
  });
  const [trial, setTrial] = useState<Arranged | null>(null);
  const [clearance, setClearance] = useState<Clearance | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const count = session.preview?.sheet.layout.runs[run]?.placements.length ?? 0;
  const chosen = choice.run === run ? new Set([...choice.chosen].filter((at) => at < count)) : none;

  // What callbacks need at once: the copies that are chosen, the trial on its way, and acts in turn.
  const now = useRef<ReadonlySet<number>>(chosen);
  useEffect(() => {
    now.current = chosen;
  });
  const asked = useRef<{ busy: boolean; next: (() => void) | null }>({ busy: false, next: null });
  const queue = useRef(Promise.resolve());
  // Which drag is going on: what is answered of one before is too late.
  const drag = useRef(0);

  const choose = useCallback(
    (next: Iterable<number>) => {
      setChoice({ run, chosen: new Set(next) });
      setClearance(null);
      setTrouble(null);
    },
    [run],
  );

  const fail = (error: unknown) => {
    if (!(error instanceof Failure)) throw error;
    setTrouble(error.message);
  };

  const act = (what: Act, of?: Iterable<number>) => {
    drag.current += 1;
    asked.current.next = null;
    const doIt = async () => {
      const current = now.current;
      try {
        const done = await api.arrange(session.latest(), {
          run,
          chosen: [...(of ?? current)],
          what,
        });
        setTrial(null);
        setTrouble(null);
        setChoice({ run, chosen: new Set(done.chosen) });
        setClearance(done.clearance);
        now.current = new Set(done.chosen);
        await session.keep(set('sheet.kept', done.kept));
      } catch (error) {
        setTrial(null);
        fail(error);
      }
    };
    // What went wrong with one act was said; the next has its turn all the same.
    queue.current = queue.current.catch(() => undefined).then(doIt);
    return queue.current;
  };

  /** One request at a time; of those that come meanwhile only the newest is sent. */
  const ask = (by: Offset, snap: number) => {
    const own = drag.current;
    const send = () => {
      asked.current.busy = true;
      const current = now.current;
      api
        .arrange(session.latest(), {
          run,
          chosen: [...current],
          what: { act: 'move', ...by, snap },
        })
        .then((done) => {
          if (own !== drag.current) return;
          setTrial(done);
          setClearance(done.clearance);
        })
        .catch(fail)
        .finally(() => {
          asked.current.busy = false;
          const next = asked.current.next;
          asked.current.next = null;
          next?.();
        });
    };
    if (asked.current.busy) asked.current.next = send;
    else send();
  };

  return {
    chosen,
    choose,
    trial,
    clearance,
    trouble,
    act,
    try: ask,
    drop: () => {
      drag.current += 1;
      asked.current.next = null;
      setTrial(null);
    },
  };
}

const none: ReadonlySet<number> = new Set();
