/** Lines worked at by hand: which is taken, which of its nodes, and what waits for another line. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';

import { api, Failure } from '../api/client';
import { add, remove } from '../api/fields';
import type { DrawingView, LineDrawing, LineMend, NearView, Unit } from '../api/generated/types';
import type { PieceSession } from '../job/pieces';

/** What is done with a line and another, which is pressed next. */
export type Together = 'join' | 'trim' | 'unite' | 'subtract' | 'intersect';

type Place = [number, number];

/** How near a press must be, px. */
export const REACH = 9;

export function useMending(
  session: PieceSession,
  own: LineDrawing,
  view: DrawingView,
  unit: Unit,
  isOn: boolean,
) {
  const [line, setLine] = useState<number | null>(null);
  const [node, setNode] = useState<number | null>(null);
  const [near, setNear] = useState<NearView | null>(null);
  const [pressed, setPressed] = useState<Place | null>(null);
  const [waits, setWaits] = useState<Together | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const steps = own.mends ?? [];
  const ask = { drawing: own, mm: view.unit, unit, reach: 0 };
  const picked = useQuery({
    queryKey: ['picked', own.lines, steps, line, unit],
    queryFn: ({ signal }) => api.pickLine({ ...ask, line, at: null }, signal),
    enabled: isOn && line !== null,
    placeholderData: (before) => before,
  });
  const take = (next: number | null) => {
    setLine(next);
    setNode(null);
    setNear(null);
    setWaits(null);
  };
  const field = session.at('form.drawing.mends');
  const keep = async (...mends: LineMend[]) => {
    setTrouble(null);
    return session.keep(...mends.map((mend) => add(field, mend)));
  };
  /** A press on the board: takes the line there, or gives the other one to what waits for it. */
  const press = async (at: Place, reach: number) => {
    setTrouble(null);
    try {
      const found = await api.pickLine({ ...ask, line: null, at, reach });
      if (waits && line !== null) {
        if (!found || found.line === line) {
          setTrouble('Press on another line.');
          return;
        }
        setWaits(null);
        await keep(together(waits, line, found.line, pressed ?? at));
        return;
      }
      setPressed(at);
      if (found?.line !== line) take(found?.line ?? null);
      setNode(null);
      setNear(found?.near ?? null);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
    }
  };
  /** Takes the next line that is there, for whoever has no pointer. */
  const next = async (step: 1 | -1) => {
    setTrouble(null);
    for (
      let at = (line ?? (step > 0 ? -1 : 1)) + step, tries = 0;
      at >= 0 && tries < 50;
      at += step
    ) {
      tries += 1;
      const found = await api.pickLine({ ...ask, line: at, at: null });
      if (found) {
        take(at);
        return;
      }
    }
  };
  const back = () => {
    take(null);
    void session.keep(remove(`${field}.${steps.length - 1}`));
  };
  return {
    ...{ line, node, setNode, near, waits, setWaits, trouble, take, keep, press, back },
    next: (step: 1 | -1) => void next(step),
    picked: line === null ? null : (picked.data ?? null),
  };
}

export type Mending = ReturnType<typeof useMending>;

function together(act: Together, line: number, other: number, at: Place): LineMend {
  if (act === 'join') return { step: 'join', line, with: other };
  if (act === 'trim') return { step: 'trim', line, at, to: other };
  return { step: act, lines: [line], with: [other] };
}
