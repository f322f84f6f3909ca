/** Bringing pictures in: chosen, dropped or pasted, each kept before it is placed. */
import { useCallback, useEffect, useRef, useState } from 'react';

import { api, Failure } from '../api/client';
import type { Face } from '../api/generated/types';
import type { PieceSession } from '../job/pieces';
import { layerAdded, pictureOn, type Side } from './layers';

export interface Pictures {
  /** What is on its way. */
  coming: string | null;
  trouble: string | null;
  /** Brings a file in and lays it on a panel. */
  bring: (file: File, panel: string) => void;
  /** The page of a PDF that is brought in, from 1. */
  page: number;
  onPage: (page: number) => void;
}

export function usePictures(
  session: PieceSession,
  panel: string,
  face: Face,
  side: Side,
): Pictures {
  const [coming, setComing] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [page, setPage] = useState(1);
  const latest = useRef(session);
  const first = useRef(face);
  const latestPage = useRef(page);
  const latestSide = useRef(side);
  useEffect(() => {
    latest.current = session;
    first.current = face;
    latestPage.current = page;
    latestSide.current = side;
  });
  const bring = useCallback((file: File, on: string) => {
    const run = async () => {
      setComing(file.name);
      setTrouble(null);
      try {
        const blob = await api.addBlob(file, latestPage.current);
        const now = latest.current;
        const layer = pictureOn(blob, file.name, on, latestSide.current);
        await now.keep(...layerAdded(now, layer, first.current));
      } catch (error) {
        if (!(error instanceof Failure)) throw error;
        setTrouble(`${file.name}: ${error.message}`);
      }
      setComing(null);
    };
    void run();
  }, []);
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const target = event.target as HTMLElement;
      const file = event.clipboardData?.files[0];
      if (!file || panel === '' || target.matches('input, textarea')) return;
      event.preventDefault();
      bring(file, panel);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [bring, panel]);
  return { coming, trouble, bring, page, onPage: setPage };
}
