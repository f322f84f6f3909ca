/** A first look at what a threshold would do, while it is moved. */
import { useCallback, useEffect, useRef, useState } from 'react';

import { api, Failure } from '../api/client';
import type { Traced, TraceLook, Unit } from '../api/generated/types';

export interface Look {
  /** What the needle shows. */
  threshold: number;
  seen: TraceLook | null;
}

export function useLook(traced: Traced, unit: Unit) {
  const [look, setLook] = useState<Look | null>(null);
  const asking = useRef<AbortController | null>(null);
  useEffect(() => () => asking.current?.abort(), []);
  const onTry = useCallback(
    (threshold: number) => {
      asking.current?.abort();
      const asked = new AbortController();
      asking.current = asked;
      setLook((before) => ({ threshold, seen: before?.seen ?? null }));
      const tried = { ...traced, trace: { ...traced.trace, threshold } };
      api
        .traceLook(tried, unit, asked.signal)
        .then((seen) => {
          if (!asked.signal.aborted) setLook({ threshold, seen });
        })
        .catch((error: unknown) => {
          if (!asked.signal.aborted && !(error instanceof Failure)) throw error;
        });
    },
    [traced, unit],
  );
  const drop = useCallback(() => {
    asking.current?.abort();
    setLook(null);
  }, []);
  return { look, onTry, drop };
}
