/** Handles by which layers are dragged on the flat; arrow keys nudge them, Delete takes them off. */
import { useRef, useState } from 'react';

import type { PieceView } from '../api/views';
import { remove, set } from '../api/fields';
import type { PlaceView } from '../api/generated/types';
import { Handle, tenth } from '../board/Handle';
import type { View } from '../board/view';
import type { PieceSession } from '../job/pieces';
import { isOn, type LyingLayer, lies, membersOf, type Side } from './layers';

interface Props {
  session: PieceSession;
  piece: PieceView;
  view: View;
  /** The layers in hand. */
  chosen: string[];
  onChoose: (ids: string[]) => void;
  side: Side;
}

/** Pixels at which a layer is drawn to a line. */
const SNAP = 7;

/** Layers as they were taken, and where the one under the pointer lay. */
interface Taken {
  layers: LyingLayer[];
  place: PlaceView;
}

export function LayerHandles({ session, piece, view, chosen, onChoose, side }: Props) {
  const taken = useRef<Taken | null>(null);
  const [lines, setLines] = useState<[number | null, number | null]>([null, null]);
  const all = (session.own.face?.layers ?? []).filter(isOn(side));
  const free = all.filter(lies).filter((layer) => !layer.locked && !layer.hidden);
  const isPicked = ({ id }: LyingLayer) => chosen.includes(id);
  // Those in hand come last, so that they lie above the others.
  const inOrder = [...free].sort((a, b) => Number(isPicked(a)) - Number(isPicked(b)));
  const move = (across: number, along: number, isDrag: boolean) => {
    const held = taken.current;
    if (!held) return;
    const [x, sideways] = drawn(held.place.snaps[0], held.place.centre[0], across, isDrag, view);
    const [y, down] = drawn(held.place.snaps[1], held.place.centre[1], along, isDrag, view);
    setLines([sideways, down]);
    session.propose(
      ...held.layers.flatMap((layer) => {
        const path = session.at(`face.layers.${layer.id}`);
        const [to, below] = [layer.x + x, layer.y + y];
        return [
          set(`${path}.x`, sideways === null ? tenth(to) : thousandth(to)),
          set(`${path}.y`, down === null ? tenth(below) : thousandth(below)),
        ];
      }),
    );
  };
  return (
    <g className="handles layer-handles">
      {lines[0] !== null && (
        <path className="snap-line" d={`M${lines[0] * view.scale + view.x} 0V9999`} />
      )}
      {lines[1] !== null && (
        <path className="snap-line" d={`M0 ${lines[1] * view.scale + view.y}H9999`} />
      )}
      {inOrder.map((layer) => {
        const shown = piece.layers.find(({ id }) => id === layer.id);
        if (!shown?.place) return null;
        const { place } = shown;
        const isCover = layer.kind === 'pattern' && !isPicked(layer);
        if (isCover) return null;
        const pick = () => {
          const together = isPicked(layer) ? chosen : membersOf(all, layer);
          taken.current = { layers: free.filter(({ id }) => together.includes(id)), place };
          if (!isPicked(layer)) onChoose(together);
        };
        return (
          <Handle
            key={layer.id}
            at={place.centre}
            size={place.bounds}
            view={view}
            label={`Move ${shown.title} on ${layer.panels[0] ?? 'the flat'}`}
            isPicked={isPicked(layer)}
            onPick={pick}
            onMove={move}
            onKeep={() => {
              setLines([null, null]);
              void session.keep();
            }}
            onKey={(event) => {
              if (event.key !== 'Delete' && event.key !== 'Backspace') return;
              event.preventDefault();
              onChoose([]);
              const gone = isPicked(layer) ? chosen : [layer.id];
              void session.keep(...gone.map((id) => remove(session.at(`face.layers.${id}`))));
            }}
          />
        );
      })}
    </g>
  );
}

const thousandth = (mm: number) => Math.round(mm * 1000) / 1000;

/** How far something goes that is drawn to the nearest of some lines, and to which. */
function drawn(
  snaps: number[],
  from: number,
  by: number,
  isDrag: boolean,
  view: View,
): [number, number | null] {
  if (!isDrag) return [by, null];
  const to = from + by;
  const nearest = snaps.reduce<number | null>(
    (best, line) => (best === null || Math.abs(line - to) < Math.abs(best - to) ? line : best),
    null,
  );
  const isNear = nearest !== null && Math.abs(nearest - to) * view.scale < SNAP;
  return isNear ? [nearest - from, nearest] : [by, null];
}
