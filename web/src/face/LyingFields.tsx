/** Where a layer lies: its panels on the key plan, which way is up, its turn and its place. */
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { UnitInfo } from '../api/generated/types';
import type { PieceView } from '../api/views';
import { FigureField } from '../card/FigureField';
import { SwitchField } from '../card/SwitchField';
import type { PieceSession } from '../job/pieces';
import { KeyPlan } from './KeyPlan';
import type { LyingLayer } from './layers';

interface Props {
  layer: LyingLayer;
  session: PieceSession;
  piece: PieceView;
  unit: UnitInfo;
  /** The path of the layer in the job. */
  path: string;
}

export function LyingFields({ layer, session, piece, unit, path }: Props) {
  const shown = piece.layers.find(({ id }) => id === layer.id)?.place;
  const { panels } = layer;
  const choose = (panel: string, isBeside: boolean) => {
    const others = panels.filter((name) => name !== panel);
    const next = !isBeside ? [panel] : others.length < panels.length ? others : [...panels, panel];
    void session.keep(set(`${path}.panels`, next));
  };
  const place = (name: 'x' | 'y' | 'turn', label: string, text?: string) => (
    <FigureField
      figure={{
        field: `${path}.${name}`,
        label,
        value: layer[name],
        ...(text === undefined ? {} : { text }),
      }}
      session={session}
      unit={unit}
      {...(name === 'turn' ? { measured: 'angle' as const } : {})}
      least={name === 'turn' ? -360 : -5000}
    />
  );
  return (
    <>
      <KeyPlan flat={piece.flat} panels={panels} onChoose={choose} />
      <p className="layer-note">
        {panels.length === 0 ? 'The whole flat' : panels.join(', ')}. Shift takes a panel beside the
        others.
      </p>
      <SwitchField
        label="Up"
        value={layer.up}
        choices={[
          { value: 'as-read', label: 'as read' },
          { value: 'as-drawn', label: 'as drawn' },
        ]}
        onChoose={(up) => void session.keep(set(`${path}.up`, up))}
      />
      {place('turn', 'Turned', String(layer.turn))}
      {place('x', 'Right of middle', shown?.at_text[0])}
      {place('y', 'Below middle', shown?.at_text[1])}
      <div className="layer-buttons">
        <Button
          variant="plain"
          onClick={() => void session.keep(set(`${path}.x`, 0), set(`${path}.y`, 0))}
        >
          centred
        </Button>
        <Button variant="plain" onClick={() => void session.keep(set(`${path}.panels`, []))}>
          over the whole flat
        </Button>
      </div>
    </>
  );
}
