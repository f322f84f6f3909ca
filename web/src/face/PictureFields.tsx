/** How a picture lies: its panel, its size by either side, its place; and where it comes from. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { UnitInfo } from '../api/generated/types';
import type { PieceView } from '../api/views';
import { ChoiceField } from '../card/ChoiceField';
import { FigureField } from '../card/FigureField';
import { LengthField } from '../card/LengthField';
import { Result } from '../card/SpecCard';
import type { PieceSession } from '../job/pieces';
import { errorsOf } from '../job/StageProps';
import type { PictureLayer } from './layers';
import { OriginFields } from './OriginFields';

interface Props {
  layer: PictureLayer;
  session: PieceSession;
  piece: PieceView;
  unit: UnitInfo;
  /** The path of the layer in the job. */
  path: string;
}

export function PictureFields({ layer, session, piece, unit, path }: Props) {
  const [isOriginOpen, setOriginOpen] = useState(false);
  const faces = piece.flat.panels.filter(({ role }) => role !== 'glue');
  const shown = piece.layers.find(({ id }) => id === layer.id)?.picture;
  const keep = (field: string, value: unknown) => void session.keep(set(`${path}.${field}`, value));
  const side = (by: 'width' | 'height', label: string, at: 0 | 1) => (
    <LengthField
      label={label}
      note="The other side follows: the picture keeps its ratio."
      value={shown?.size[at] ?? 0}
      {...(shown ? { text: shown.size_text[at] } : {})}
      unit={unit}
      isStandard={layer.size.by !== by}
      errors={layer.size.by === by ? errorsOf(session, `${path}.size.mm`) : []}
      onTry={(mm) => session.propose(set(`${path}.size`, { by, mm }))}
      onKeep={() => session.keep()}
      onDrop={session.drop}
      onStandard={() => keep('size', { by: 'panel' })}
      onApply={(error) => void session.keep(...error.remedy.changes)}
    />
  );
  const place = (name: 'x' | 'y', label: string, at: 0 | 1) => (
    <FigureField
      figure={{
        field: `${path}.${name}`,
        label,
        value: layer[name],
        ...(shown ? { text: shown.at_text[at] } : {}),
      }}
      session={session}
      unit={unit}
      least={-5000}
    />
  );
  return (
    <>
      <ChoiceField
        label="Panel"
        value={layer.panel}
        choices={faces.map(({ name }) => ({ value: name, label: name }))}
        errors={errorsOf(session, `${path}.panel`)}
        onChoose={(panel) => keep('panel', panel)}
      />
      {side('width', 'Width', 0)}
      {side('height', 'Height', 1)}
      {place('x', 'Right of middle', 0)}
      {place('y', 'Below middle', 1)}
      <div className="layer-buttons">
        <Button variant="plain" onClick={() => keep('size', { by: 'panel' })}>
          whole on the panel
        </Button>
        <Button
          variant="plain"
          onClick={() => void session.keep(set(`${path}.x`, 0), set(`${path}.y`, 0))}
        >
          centred
        </Button>
        <Button
          variant="plain"
          aria-expanded={isOriginOpen}
          onClick={() => setOriginOpen(!isOriginOpen)}
        >
          where it is from
        </Button>
      </div>
      {shown && <Result label="Original" value={shown.pixels_text} />}
      {isOriginOpen && <OriginFields {...{ session, path }} origin={layer.origin} />}
    </>
  );
}
