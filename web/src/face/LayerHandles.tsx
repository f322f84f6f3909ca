/** Handles by which layers are dragged on the flat; arrow keys nudge them, Delete takes them off. */
import { useRef } from 'react';

import type { PieceView } from '../api/views';
import { remove, set } from '../api/fields';
import { Handle, tenth } from '../board/Handle';
import type { View } from '../board/view';
import type { PieceSession } from '../job/pieces';
import { type LyingLayer, lies } from './layers';

interface Props {
  session: PieceSession;
  piece: PieceView;
  view: View;
  picked: string | null;
  onPick: (id: string | null) => void;
}

export function LayerHandles({ session, piece, view, picked, onPick }: Props) {
  const taken = useRef<LyingLayer | null>(null);
  const layers = session.own.face?.layers.filter(lies) ?? [];
  const free = layers.filter((layer) => !layer.locked && !layer.hidden);
  // The one in hand comes last, so that it lies above the others.
  const inOrder = [...free].sort((a, b) => Number(a.id === picked) - Number(b.id === picked));
  return (
    <g className="handles layer-handles">
      {inOrder.map((layer) => {
        const shown = piece.layers.find(({ id }) => id === layer.id);
        if (!shown?.place) return null;
        const { centre, size, turn } = shown.place;
        const path = session.at(`face.layers.${layer.id}`);
        const isCover = layer.kind === 'pattern' && picked !== layer.id;
        if (isCover) return null;
        return (
          <Handle
            key={layer.id}
            at={centre}
            size={boundsOf(size, turn)}
            view={view}
            label={`Move ${shown.title} on ${layer.panels[0] ?? 'the flat'}`}
            isPicked={picked === layer.id}
            onPick={() => {
              taken.current = layer;
              onPick(layer.id);
            }}
            onMove={(across, along) => {
              const from = taken.current ?? layer;
              session.propose(
                set(`${path}.x`, tenth(from.x + across)),
                set(`${path}.y`, tenth(from.y + along)),
              );
            }}
            onKeep={() => void session.keep()}
            onKey={(event) => {
              if (event.key !== 'Delete' && event.key !== 'Backspace') return;
              event.preventDefault();
              onPick(null);
              void session.keep(remove(path));
            }}
          />
        );
      })}
    </g>
  );
}

/** The upright box around one that is turned. */
function boundsOf([width, height]: [number, number], degrees: number): [number, number] {
  const turn = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))];
  return [width * cos + height * sin, width * sin + height * cos];
}
