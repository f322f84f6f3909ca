/** What is done to a picture before it is printed: steps, each of which makes it anew from what was brought in. */
import { useRef, useState } from 'react';

import { api, Failure } from '../api/client';
import { set } from '../api/fields';
import type { ReworkStep } from '../api/generated/types';
import type { PieceSession } from '../job/pieces';
import type { PictureLayer } from './layers';

export interface ReworkDesk {
  /** The picture that was brought in, and its sides. */
  from: string;
  pixels: [number, number];
  steps: ReworkStep[];
  isBusy: boolean;
  trouble: string | null;
  onSteps: (steps: ReworkStep[]) => void;
}

export function useRework(session: PieceSession, layer: PictureLayer): ReworkDesk {
  const kept = layer.reworked ?? null;
  const [asked, setAsked] = useState<ReworkStep[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const latest = useRef(0);
  const from = kept?.from ?? layer.blob;
  const pixels = kept?.pixels ?? layer.pixels;
  const onSteps = (steps: ReworkStep[]) => {
    latest.current += 1;
    const turn = latest.current;
    setAsked(steps);
    setBusy(true);
    setTrouble(null);
    const run = async () => {
      const path = session.at(`face.layers.${layer.id}`);
      try {
        const made = steps.length === 0 ? { id: from, pixels } : await api.rework(from, steps);
        // One that was asked for since is the one that is meant.
        if (turn !== latest.current) return;
        await session.keep(
          set(`${path}.blob`, made.id),
          set(`${path}.pixels`, made.pixels),
          set(`${path}.reworked`, steps.length === 0 ? null : { from, pixels, steps }),
        );
        // While it was being saved another may have been asked for.
        if (turn !== latest.current) return;
        setAsked(null);
      } catch (error) {
        if (!(error instanceof Failure)) throw error;
        if (turn !== latest.current) return;
        setTrouble(error.problem.errors[0]?.message ?? error.message);
      }
      setBusy(false);
    };
    void run();
  };
  return { from, pixels, steps: asked ?? kept?.steps ?? [], isBusy, trouble, onSteps };
}
