/** The layers of a face as ruled rows, in the order in which they are printed; the one in hand is open. */
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import { move, remove, set } from '../api/fields';
import type { Layer, UnitInfo } from '../api/generated/types';
import type { PieceView } from '../api/views';
import { SwitchField } from '../card/SwitchField';
import type { PieceSession } from '../job/pieces';
import { ColourField } from './ColourField';
import { ShapeFields } from './FigureFields';
import { KeyPlan } from './KeyPlan';
import { isOn, lies, membersOf, type Side } from './layers';
import { LayerStanding } from './LayerStanding';
import { LayerSwatch } from './LayerSwatch';
import { LyingFields } from './LyingFields';
import { PatternFields } from './PatternFields';
import { PictureFields } from './PictureFields';
import { Several } from './Several';
import { TextFields } from './TextFields';

interface Props {
  session: PieceSession;
  piece: PieceView;
  unit: UnitInfo;
  /** The layers in hand: one alone is open. */
  chosen: string[];
  onChoose: (ids: string[]) => void;
  /** Opens the desk on which a picture is cleaned up. */
  onRework: (id: string) => void;
  side: Side;
}

export function LayerRows({ session, piece, unit, chosen, onChoose, onRework, side }: Props) {
  const all = session.own.face?.layers ?? [];
  const layers = all.filter(isOn(side));
  // How far a layer goes in the whole list to stand where another of its side does.
  const between = (layer: Layer, to: number) =>
    all.findIndex(({ id }) => id === layers[to]?.id) - all.indexOf(layer);
  const dragged = useRef<number | null>(null);
  const [over, setOver] = useState<number | null>(null);
  const drop = (at: number) => {
    const from = dragged.current;
    const layer = from === null ? undefined : layers[from];
    dragged.current = null;
    setOver(null);
    if (from === null || !layer || at === from) return;
    void session.keep(move(session.at(`face.layers.${layer.id}`), between(layer, at)));
  };
  return (
    <>
      {chosen.length > 1 && <Several {...{ session, chosen, onChoose }} />}
      <ol className="layers" aria-label="Layers, the first printed first">
        {layers.map((layer, at) => {
          const shown = piece.layers.find(({ id }) => id === layer.id);
          const title = shown?.title ?? layer.kind;
          const isChosen = chosen.includes(layer.id);
          const isOpen = isChosen && chosen.length === 1;
          const together = membersOf(layers, layer);
          const toggle = () =>
            onChoose(
              isChosen
                ? chosen.filter((id) => !together.includes(id))
                : [...chosen, ...together.filter((id) => !chosen.includes(id))],
            );
          const shift = (by: number) =>
            void session.keep(move(session.at(`face.layers.${layer.id}`), between(layer, at + by)));
          return (
            <li
              key={layer.id}
              className={classes({
                layer: true,
                'is-open': isOpen,
                'is-chosen': isChosen,
                'is-hidden': layer.hidden === true,
                'is-grouped': layer.group != null,
                'is-over': over === at,
              })}
              onDragOver={(event) => {
                if (dragged.current === null) return;
                event.preventDefault();
                setOver(at);
              }}
              onDrop={(event) => {
                if (dragged.current === null) return;
                event.preventDefault();
                drop(at);
              }}
            >
              <header
                draggable
                onDragStart={(event) => {
                  dragged.current = at;
                  event.dataTransfer.effectAllowed = 'move';
                  event.dataTransfer.setData('text/plain', title);
                }}
                onDragEnd={() => {
                  dragged.current = null;
                  setOver(null);
                }}
              >
                <Button
                  variant="bare"
                  className="layer-swatch"
                  aria-label={`Choose ${title} with others`}
                  aria-pressed={isChosen}
                  onClick={toggle}
                >
                  <LayerSwatch layer={layer} />
                </Button>
                <Button
                  variant="plain"
                  className="layer-title"
                  aria-expanded={isOpen}
                  onClick={(event) => {
                    if (event.shiftKey || event.ctrlKey || event.metaKey) toggle();
                    else onChoose(isOpen ? [] : [layer.id]);
                  }}
                  onKeyDown={(event) => {
                    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
                    if (!event.altKey || by === undefined) return;
                    event.preventDefault();
                    if (layers[at + by]) shift(by);
                  }}
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
                    onChoose(chosen.filter((id) => id !== layer.id));
                    void session.keep(remove(session.at(`face.layers.${layer.id}`)));
                  }}
                >
                  ×
                </Button>
              </header>
              {isOpen && (
                <div className="layer-card">
                  <Fields
                    {...{ layer, session, piece, unit }}
                    onRework={() => onRework(layer.id)}
                  />
                  {lies(layer) && (
                    <LyingFields
                      {...{ layer, session, piece, unit }}
                      path={session.at(`face.layers.${layer.id}`)}
                    />
                  )}
                  <LayerStanding {...{ layer, session }} />
                </div>
              )}
            </li>
          );
        })}
      </ol>
    </>
  );
}

const classes = (names: Record<string, boolean>) =>
  Object.entries(names)
    .filter(([, isOn]) => isOn)
    .map(([name]) => name)
    .join(' ');

interface FieldsProps {
  layer: Layer;
  session: PieceSession;
  piece: PieceView;
  unit: UnitInfo;
  onRework: () => void;
}

function Fields({ layer, session, piece, unit, onRework }: FieldsProps) {
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
      return <PictureFields {...{ layer, session, piece, unit, path, onRework }} />;
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
