/** The layers of a face as ruled rows, in the order in which they are printed; the one in hand is open. */
import { Button } from 'react-bootstrap';

import { move, remove, set } from '../api/fields';
import type { Layer, UnitInfo } from '../api/generated/types';
import type { PieceView } from '../api/views';
import { blobAddress } from '../board/Art';
import { SwitchField } from '../card/SwitchField';
import type { PieceSession } from '../job/pieces';
import { ColourField } from './ColourField';
import {} from './layers';
import { PictureFields } from './PictureFields';

interface Props {
  session: PieceSession;
  piece: PieceView;
  unit: UnitInfo;
  picked: string | null;
  onPick: (id: string | null) => void;
}

export function LayerRows({ session, piece, unit, picked, onPick }: Props) {
  const layers = session.own.face?.layers ?? [];
  return (
    <ol className="layers" aria-label="Layers, the first printed first">
      {layers.map((layer, at) => {
        const shown = piece.layers.find(({ id }) => id === layer.id);
        const title = shown?.title ?? layer.kind;
        const isOpen = picked === layer.id;
        const shift = (by: number) =>
          void session.keep(move(session.at(`face.layers.${layer.id}`), by));
        return (
          <li key={layer.id} className={`layer${isOpen ? ' is-open' : ''}`}>
            <header>
              <Swatch layer={layer} />
              <Button
                variant="plain"
                className="layer-title"
                aria-expanded={isOpen}
                onClick={() => onPick(isOpen ? null : layer.id)}
              >
                {title}
                {layer.kind === 'picture' && <small>{layer.panel}</small>}
              </Button>
              <Button
                variant="plain"
                aria-label={`Print ${title} earlier`}
                disabled={at === 0}
                onClick={() => shift(-1)}
              >
                ↑
              </Button>
              <Button
                variant="plain"
                aria-label={`Print ${title} later`}
                disabled={at === layers.length - 1}
                onClick={() => shift(1)}
              >
                ↓
              </Button>
              <Button
                variant="plain"
                aria-label={`Take ${title} off`}
                onClick={() => {
                  if (isOpen) onPick(null);
                  void session.keep(remove(session.at(`face.layers.${layer.id}`)));
                }}
              >
                ×
              </Button>
            </header>
            {isOpen && <Fields {...{ layer, session, piece, unit }} />}
          </li>
        );
      })}
    </ol>
  );
}

function Swatch({ layer }: { layer: Layer }) {
  switch (layer.kind) {
    case 'colour':
      return <span className="swatch" style={{ background: layer.colour }} aria-hidden="true" />;
    case 'panel-names':
      return (
        <span className="swatch" aria-hidden="true">
          Aa
        </span>
      );
    case 'picture':
      return <img className="swatch" src={blobAddress(layer.blob)} alt="" />;
  }
}

interface FieldsProps {
  layer: Layer;
  session: PieceSession;
  piece: PieceView;
  unit: UnitInfo;
}

function Fields({ layer, session, piece, unit }: FieldsProps) {
  const path = session.at(`face.layers.${layer.id}`);
  switch (layer.kind) {
    case 'colour':
      return (
        <>
          <ColourField
            colour={layer.colour}
            onTry={(colour) => session.propose(set(`${path}.colour`, colour))}
            onKeep={(colour) => void session.keep(set(`${path}.colour`, colour))}
          />
          <SwitchField
            name="Carry it"
            label="Which panels carry the colour"
            value={layer.coverage}
            choices={[
              { value: 'faces', label: 'outer panels' },
              { value: 'flaps', label: 'flaps too' },
            ]}
            onChoose={(coverage) => void session.keep(set(`${path}.coverage`, coverage))}
          />
        </>
      );
    case 'panel-names':
      return (
        <p className="layer-note">
          Each outer panel says what it is; a panel with a label says that instead.
        </p>
      );
    case 'picture':
      return <PictureFields {...{ layer, session, piece, unit, path }} />;
  }
}
