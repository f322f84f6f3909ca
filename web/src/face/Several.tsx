/** What is done to several layers at once: lined up, made as large as the first, held together. */
import { Button } from 'react-bootstrap';

import { api } from '../api/client';
import { set } from '../api/fields';
import type { LineUp } from '../api/generated/types';
import type { PieceSession } from '../job/pieces';

interface Props {
  session: PieceSession;
  chosen: string[];
  onChoose: (ids: string[]) => void;
}

const WAYS: { how: LineUp; label: string }[][] = [
  [
    { how: 'left', label: 'left sides' },
    { how: 'centre', label: 'middles across' },
    { how: 'right', label: 'right sides' },
  ],
  [
    { how: 'top', label: 'upper sides' },
    { how: 'middle', label: 'middles down' },
    { how: 'bottom', label: 'lower sides' },
  ],
  [
    { how: 'gaps-across', label: 'equal gaps across' },
    { how: 'gaps-down', label: 'equal gaps down' },
  ],
  [
    { how: 'widths', label: 'same width' },
    { how: 'heights', label: 'same height' },
  ],
];

export function Several({ session, chosen, onChoose }: Props) {
  const own = session.own.face?.layers.filter(({ id }) => chosen.includes(id)) ?? [];
  const group = own[0]?.group ?? null;
  const isGrouped = group !== null && own.every((layer) => layer.group === group);
  const lineUp = async (how: LineUp) => {
    const changes = await api.lineUp(session.latest(), session.own.id, chosen, how);
    if (changes.length > 0) await session.keep(...changes);
  };
  const hold = (name: string | null) =>
    void session.keep(...chosen.map((id) => set(session.at(`face.layers.${id}.group`), name)));
  return (
    <div className="several" role="group" aria-label={`${chosen.length} layers in hand`}>
      <p>
        <strong>{chosen.length} layers in hand</strong>; the first says how large.
      </p>
      {WAYS.map((row) => (
        <div key={row[0]?.how} className="several-ways">
          {row.map(({ how, label }) => (
            <Button key={how} size="sm" variant="plain" onClick={() => void lineUp(how)}>
              {label}
            </Button>
          ))}
        </div>
      ))}
      <div className="several-ways">
        <Button
          size="sm"
          variant="plain"
          onClick={() => hold(isGrouped ? null : (own[0]?.id ?? null))}
        >
          {isGrouped ? 'let go of each other' : 'hold together'}
        </Button>
        <Button size="sm" variant="plain" onClick={() => onChoose([])}>
          put down
        </Button>
      </div>
    </div>
  );
}
