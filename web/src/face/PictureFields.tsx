/** How large a picture is, by either side, and where it comes from. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { UnitInfo } from '../api/generated/types';
import type { PieceView } from '../api/views';
import { AmountField } from '../card/AmountField';
import { ChoiceField } from '../card/ChoiceField';
import { LengthField } from '../card/LengthField';
import { Result } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import type { PieceSession } from '../job/pieces';
import { errorsOf } from '../job/StageProps';
import { ColourField } from './ColourField';
import type { PictureLayer } from './layers';
import { OriginFields } from './OriginFields';

interface Props {
  layer: PictureLayer;
  session: PieceSession;
  piece: PieceView;
  unit: UnitInfo;
  /** The path of the layer in the job. */
  path: string;
  /** Opens the desk on which it is cleaned up. */
  onRework: () => void;
}

const CROPS = ['left', 'top', 'right', 'bottom'];

const round = (mm: number) => Math.round(mm * 100) / 100;

export function PictureFields({ layer, session, piece, unit, path, onRework }: Props) {
  const [isCropOpen, setCropOpen] = useState(layer.crop.some((share) => share > 0));
  const [isOriginOpen, setOriginOpen] = useState(false);
  const shown = piece.layers.find(({ id }) => id === layer.id);
  const place = shown?.place;
  const keep = (field: string, value: unknown) => void session.keep(set(`${path}.${field}`, value));
  const ratio = layer.size.by === 'sides' ? 'free' : 'kept';
  const side = (by: 'width' | 'height', label: string, at: 0 | 1) => (
    <LengthField
      label={label}
      note={
        ratio === 'kept'
          ? 'The other side follows: the picture keeps its ratio.'
          : 'The ratio is let go.'
      }
      value={place?.size[at] ?? 0}
      {...(place ? { text: place.size_text[at] } : {})}
      unit={unit}
      isStandard={layer.size.by !== by && layer.size.by !== 'sides'}
      errors={errorsOf(session, `${path}.size.mm${ratio === 'free' ? `.${at}` : ''}`)}
      onTry={(mm) =>
        session.propose(
          layer.size.by === 'sides'
            ? set(`${path}.size.mm.${at}`, mm)
            : set(`${path}.size`, { by, mm }),
        )
      }
      onKeep={() => session.keep()}
      onDrop={session.drop}
      onStandard={() => keep('size', { by: 'panel' })}
      onApply={(error) => void session.keep(...error.remedy.changes)}
    />
  );
  const columns = session.own.list?.columns ?? [];
  return (
    <>
      <SwitchField
        label="Size"
        value={layer.size.by === 'panel' || layer.size.by === 'covering' ? layer.size.by : 'own'}
        choices={[
          { value: 'panel', label: 'whole' },
          { value: 'covering', label: 'covering' },
          { value: 'own', label: 'its own' },
        ]}
        onChoose={(by) =>
          keep('size', by === 'own' ? { by: 'width', mm: round(place?.size[0] ?? 40) } : { by })
        }
      />
      {side('width', 'Width', 0)}
      {side('height', 'Height', 1)}
      <SwitchField
        label="Ratio"
        value={ratio}
        choices={[
          { value: 'kept', label: 'kept' },
          { value: 'free', label: 'let go' },
        ]}
        onChoose={(how) => {
          const [width, height] = place?.size ?? [40, 30];
          const free = { by: 'sides', mm: [round(width), round(height)] };
          keep('size', how === 'free' ? free : { by: 'width', mm: round(width) });
        }}
      />
      <SwitchField
        label="Seen"
        value={layer.mirrored ? 'mirrored' : 'plain'}
        choices={[
          { value: 'plain', label: 'as it is' },
          { value: 'mirrored', label: 'mirrored' },
        ]}
        onChoose={(how) => keep('mirrored', how === 'mirrored')}
      />
      <ChoiceField
        label="Beyond its edge"
        value={layer.beyond?.by ?? 'nothing'}
        choices={[
          { value: 'nothing', label: 'nothing' },
          { value: 'mirrored', label: 'the picture mirrored' },
          { value: 'repeated', label: 'its edge drawn out' },
          { value: 'colour', label: 'a colour' },
        ]}
        onChoose={(by) => keep('beyond', by === 'colour' ? { by, colour: '#ffffff' } : { by })}
      />
      {layer.beyond?.by === 'colour' && (
        <ColourField
          label="Beyond"
          colour={layer.beyond.colour}
          onTry={(colour) => session.propose(set(`${path}.beyond.colour`, colour))}
          onKeep={(colour) => keep('beyond.colour', colour)}
        />
      )}
      {columns.length > 0 && (
        <ChoiceField
          label="Each copy’s own, by"
          value={layer.column ?? ''}
          choices={[
            { value: '', label: 'the same on all' },
            ...columns.map((name) => ({ value: name, label: name })),
          ]}
          onChoose={(name) => keep('column', name === '' ? null : name)}
        />
      )}
      {isCropOpen &&
        CROPS.map((label, at) => (
          <AmountField
            key={label}
            label={`Cut away ${label}, 0 to 1`}
            value={layer.crop[at] ?? 0}
            field={`${path}.crop.${at}`}
            step={0.01}
            session={session}
          />
        ))}
      <div className="layer-buttons">
        <Button variant="plain" onClick={onRework}>
          {layer.drawn === true ? 'change its parts' : 'clean up'}
        </Button>
        <Button variant="plain" aria-expanded={isCropOpen} onClick={() => setCropOpen(!isCropOpen)}>
          cut away
        </Button>
        <Button
          variant="plain"
          aria-expanded={isOriginOpen}
          onClick={() => setOriginOpen(!isOriginOpen)}
        >
          where it is from
        </Button>
      </div>
      {shown?.told && <Result label="Original" value={shown.told} />}
      {isOriginOpen && <OriginFields {...{ session, path }} origin={layer.origin} />}
    </>
  );
}
