/** Laying a card's copies close together: the first layout is shown at once, better ones as they are found. */
import { useRef, useState } from 'react';

import { Failure } from '../api/client';
import { follow } from '../api/events';
import { set } from '../api/fields';
import type { Gathered, MemberPlace, Turning } from '../api/generated/types';
import type { PieceSession } from '../job/pieces';

/** True where copies lie the same, also after the server has answered with them. */
function areSame(
  one: MemberPlace[] | null | undefined,
  other: MemberPlace[] | null | undefined,
): boolean {
  const told = (places: MemberPlace[] | null | undefined) =>
    (places ?? []).map(({ piece, x, y, turn }) => `${piece} ${x} ${y} ${turn}`).join();
  return told(one) === told(other);
}

export function useCloseTogether(session: PieceSession) {
  const [isRunning, setRunning] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const running = useRef<AbortController | null>(null);
  const field = session.at('form.gathered.places');

  const laid = () => session.newest(field) as MemberPlace[] | null | undefined;

  /** What is to be laid, whatever its places are. */
  const wanted = () =>
    JSON.stringify({ ...(session.newest(session.at('form.gathered')) as Gathered), places: null });

  const start = async (turning: Turning) => {
    const control = new AbortController();
    running.current = control;
    setRunning(true);
    setTrouble(null);
    // What is on its way counts too.
    await session.keep();
    const ask = { job: session.latest(), piece: session.own.id, turning };
    const asked = wanted();
    const shown = { places: laid(), isOurs: true };
    try {
      await follow('/cards/close', ask, control.signal, (_, data) => {
        // What was moved or put on the card by hand meanwhile stays.
        shown.isOurs &&= areSame(laid(), shown.places) && wanted() === asked;
        if (!shown.isOurs) {
          control.abort();
          return;
        }
        shown.places = data as MemberPlace[];
        session.propose(set(field, shown.places));
      });
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.problem.errors[0]?.message ?? error.message);
    }
    await session.keep();
    if (!shown.isOurs) setTrouble('You changed the card meanwhile: its copies stay as they are.');
    running.current = null;
    setRunning(false);
  };
  return { isRunning, trouble, start, stop: () => running.current?.abort() };
}
