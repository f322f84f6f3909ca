/** How long a unit of the drawing is: as the file says, as people draw, or by a dimension that is known. */
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { DrawingView, Scale, UnitInfo } from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import { Rows } from '../card/SpecCard';
import type { PieceSession } from '../job/pieces';

interface Props {
  session: PieceSession;
  view: DrawingView;
  unit: UnitInfo;
  isMeasuring: boolean;
  onMeasure: (is: boolean) => void;
  /** Places that were pressed, in units of the file. */
  ends: [number, number][];
}

export function ScaleRows({ session, view, unit, isMeasuring, onMeasure, ends }: Props) {
  const keep = (scale: Scale) => void session.keep(set(session.at('form.drawing.scale'), scale));
  const [one, other] = ends;
  const units = one && other ? Math.hypot(other[0] - one[0], other[1] - one[1]) : 0;
  return (
    <Rows
      title="How large it is"
      page="drawings"
      aside={!view.is_scaled && <span className="scale-asked">the file does not say</span>}
    >
      <div className="scales" role="radiogroup" aria-label="How large it is">
        {view.scales.map((choice) => (
          <label key={choice.name} className={choice.is_chosen ? 'is-chosen' : ''}>
            <input
              type="radio"
              name="scale"
              checked={choice.is_chosen}
              onChange={() => keep(choice.scale)}
            />
            <span>
              {choice.name}
              {choice.on_sheet && <small>{choice.on_sheet}</small>}
            </span>
            <span className="figure">{choice.size_text}</span>
          </label>
        ))}
      </div>
      <div className="row-field">
        <span>A known dimension</span>
        <Button
          size="sm"
          variant={isMeasuring ? 'primary' : 'outline-primary'}
          aria-pressed={isMeasuring}
          onClick={() => onMeasure(!isMeasuring)}
        >
          {isMeasuring ? 'press on two places' : 'from place to place'}
        </Button>
      </div>
      {units > 0 && (
        <PlainLength
          label="Is really"
          note="How long it is from the one place to the other."
          value={units * view.unit}
          unit={unit}
          onTry={() => undefined}
          onKeep={(mm) => {
            keep({ by: 'known', units, mm });
            onMeasure(false);
          }}
        />
      )}
    </Rows>
  );
}
