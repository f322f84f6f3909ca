/** How large a picture is, by either side, and where it comes from. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { UnitInfo } from '../api/generated/types';
import type { PieceView } from '../api/views';
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
  const shown = piece.layers.find(({ id }) => id === layer.id);
  const place = shown?.place;
  const keep = (field: string, value: unknown) => void session.keep(set(`${path}.${field}`, value));
  const side = (by: 'width' | 'height', label: string, at: 0 | 1) => (
    <LengthField
      label={label}
      note="The other side follows: the picture keeps its ratio."
      value={place?.size[at] ?? 0}
      {...(place ? { text: place.size_text[at] } : {})}
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
  return (
    <>
      {side('width', 'Width', 0)}
      {side('height', 'Height', 1)}
      <div className="layer-buttons">
        <Button variant="plain" onClick={() => keep('size', { by: 'panel' })}>
          whole on the panel
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
