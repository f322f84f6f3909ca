/** Handles by which copies are dragged on their card; arrow keys nudge them, R turns them. */
import { useRef } from 'react';

import { set } from '../api/fields';
import type { CopyView, Gathered, MemberPlace, MemberView } from '../api/generated/types';
import { Handle, tenth } from '../board/Handle';
import type { View } from '../board/view';
import type { PieceSession } from '../job/pieces';

interface Props {
  session: PieceSession;
  own: Gathered;
  copies: CopyView[];
  names: MemberView[];
  view: View;
  picked: number | null;
  onPick: (at: number) => void;
}

/** What R turns a copy by, degrees; with Shift by less. */
const TURN = { whole: 90, part: 15 };

export function MemberHandles({ session, own, copies, names, view, picked, onPick }: Props) {
  const taken = useRef<MemberPlace | null>(null);
  const path = session.at('form.gathered.places');
  // Copies in rows get places of their own with the first that is moved: the others stay where they are.
  const placed = (at: number, place: MemberPlace) => {
    const number = copies[at]?.number ?? null;
    const known = own.places ?? [];
    if (number !== null) return set(path, known.with(number, place));
    const rows = copies.flatMap((copy, other) =>
      copy.number === null ? [other === at ? place : copy.place] : [],
    );
    return set(path, [...known, ...rows]);
  };
  return (
    <g className="handles">
      {copies.map((copy, at) => {
        const { place, bounds } = copy;
        const name = names.find(({ piece }) => piece === place.piece)?.name ?? place.piece;
        return (
          <Handle
            key={at}
            at={[bounds[0] + bounds[2] / 2, bounds[1] + bounds[3] / 2]}
            size={[bounds[2], bounds[3]]}
            view={view}
            label={`Move ${name}, copy ${at + 1}`}
            isPicked={picked === at}
            onPick={() => {
              taken.current = place;
              onPick(at);
            }}
            onMove={(across, along) => {
              const from = taken.current ?? place;
              const to = { ...from, x: tenth(from.x + across), y: tenth(from.y + along) };
              session.propose(placed(at, to));
            }}
            onKeep={() => void session.keep()}
            onKey={(event) => {
              if (event.key.toLowerCase() !== 'r') return;
              event.preventDefault();
              const by = event.shiftKey ? TURN.part : TURN.whole;
              void session.keep(placed(at, { ...place, turn: (place.turn + by) % 360 }));
            }}
          />
        );
      })}
    </g>
  );
}
