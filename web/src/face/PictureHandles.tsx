/** Handles by which pictures are dragged on the flat; arrow keys nudge them, Delete takes them off. */
import { useRef } from 'react';

import type { PieceView } from '../api/views';
import { remove, set } from '../api/fields';
import { Handle, tenth } from '../board/Handle';
import type { View } from '../board/view';
import type { PieceSession } from '../job/pieces';
import { isPicture, type PictureLayer } from './layers';

interface Props {
  session: PieceSession;
  piece: PieceView;
  view: View;
  picked: string | null;
  onPick: (id: string | null) => void;
}

export function PictureHandles({ session, piece, view, picked, onPick }: Props) {
  const taken = useRef<PictureLayer | null>(null);
  const pictures = session.own.face?.layers.filter(isPicture) ?? [];
  return (
    <g className="handles">
      {pictures.map((layer) => {
        const panel = piece.flat.panels.find(({ name }) => name === layer.panel);
        const shown = piece.layers.find(({ id }) => id === layer.id);
        if (!panel || !shown?.picture) return null;
        const path = session.at(`face.layers.${layer.id}`);
        return (
          <Handle
            key={layer.id}
            at={[panel.centre[0] + layer.x, panel.centre[1] + layer.y]}
            size={shown.picture.size}
            view={view}
            label={`Move ${shown.title} on ${layer.panel}`}
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
