/** The layers of a face as ruled rows, in the order in which they are printed; the one in hand is open. */
import { Button } from 'react-bootstrap';

import { add, move, remove, set } from '../api/fields';
import type { Layer, UnitInfo } from '../api/generated/types';
import type { PieceView } from '../api/views';
import { blobAddress } from '../board/Art';
import { AmountField } from '../card/AmountField';
import { SwitchField } from '../card/SwitchField';
import type { PieceSession } from '../job/pieces';
import { ColourField } from './ColourField';
import { PatternFields, ShapeFields } from './FigureFields';
import { KeyPlan } from './KeyPlan';
import { lies } from './layers';
import { LyingFields } from './LyingFields';
import { PictureFields } from './PictureFields';
import { TextFields } from './TextFields';

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
          <li
            key={layer.id}
            className={`layer${isOpen ? ' is-open' : ''}${layer.hidden ? ' is-hidden' : ''}`}
          >
            <header>
              <Swatch layer={layer} />
              <Button
                variant="plain"
                className="layer-title"
                aria-expanded={isOpen}
                onClick={() => onPick(isOpen ? null : layer.id)}
              >
                {title}
                <small>{toldOf(layer, shown?.told)}</small>
              </Button>
              {lies(layer) && <KeyPlan flat={piece.flat} panels={layer.panels} />}
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
            {isOpen && (
              <div className="layer-card">
                <Fields {...{ layer, session, piece, unit }} />
                {lies(layer) && (
                  <LyingFields
                    {...{ layer, session, piece, unit }}
                    path={session.at(`face.layers.${layer.id}`)}
                  />
                )}
                <Standing {...{ layer, session }} />
              </div>
            )}
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
    case 'text':
      return (
        <span className="swatch" style={{ color: layer.colour }} aria-hidden="true">
          T
        </span>
      );
    case 'shape':
      return (
        <span
          className="swatch"
          style={{ background: layer.fill ?? 'none', borderColor: layer.line ?? undefined }}
          aria-hidden="true"
        />
      );
    case 'pattern':
      return (
        <span className="swatch" style={{ color: layer.colour }} aria-hidden="true">
          ⁘
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
    case 'text':
      return <TextFields {...{ layer, session, piece, unit, path }} />;
    case 'shape':
      return <ShapeFields {...{ layer, session, unit, path }} />;
    case 'pattern':
      return <PatternFields {...{ layer, session, unit, path }} />;
    case 'picture':
      return <PictureFields {...{ layer, session, piece, unit, path }} />;
  }
}

const toldOf = (layer: Layer, told: string | null | undefined) =>
  [
    layer.hidden ? 'left out' : null,
    layer.only_shown ? 'only shown' : null,
    layer.locked ? 'locked' : null,
    told ?? null,
  ]
    .filter((words) => words !== null)
    .join(', ');

/** What holds of every layer: whether it is printed, how opaque it is, whether it can be moved; and a copy of it. */
function Standing({ layer, session }: { layer: Layer; session: PieceSession }) {
  const path = session.at(`face.layers.${layer.id}`);
  const keep = (field: string, value: unknown) => void session.keep(set(`${path}.${field}`, value));
  return (
    <>
      <SwitchField
        name="It is"
        label="Whether the layer is printed"
        value={layer.hidden ? 'hidden' : layer.only_shown ? 'shown' : 'printed'}
        choices={[
          { value: 'printed', label: 'printed' },
          { value: 'shown', label: 'only shown' },
          { value: 'hidden', label: 'left out' },
        ]}
        onChoose={(how) =>
          void session.keep(
            set(`${path}.hidden`, how === 'hidden'),
            set(`${path}.only_shown`, how === 'shown'),
          )
        }
      />
      <AmountField
        label="Opacity, 0 to 1"
        value={layer.opacity ?? 1}
        field={`${path}.opacity`}
        step={0.05}
        session={session}
      />
      <div className="layer-buttons">
        <Button variant="plain" onClick={() => keep('locked', !layer.locked)}>
          {layer.locked ? 'unlock' : 'lock'}
        </Button>
        <Button
          variant="plain"
          onClick={() =>
            void session.keep(add(session.at('face.layers'), { ...layer, id: undefined }))
          }
        >
          copy
        </Button>
      </div>
    </>
  );
}
