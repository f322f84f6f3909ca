/** How copies lie on a card: in rows, close together, or by hand. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { Gathered, GatheredView, Turning, UnitInfo } from '../api/generated/types';
import { ChoiceField } from '../card/ChoiceField';
import { FigureField } from '../card/FigureField';
import { Rows } from '../card/SpecCard';
import type { PieceSession } from '../job/pieces';
import { useCloseTogether } from './useCloseTogether';

interface Props {
  session: PieceSession;
  unit: UnitInfo;
  own: Gathered;
  view: GatheredView;
  picked: number | null;
}

const TURNS: { value: Turning; label: string }[] = [
  { value: 'upright', label: 'all upright' },
  { value: 'quarter', label: 'in quarter turns' },
  { value: 'free', label: 'turned freely' },
];

export function LaidRows({ session, unit, own, view, picked }: Props) {
  const [turning, setTurning] = useState<Turning>('upright');
  const { isRunning, trouble, start, stop } = useCloseTogether(session);
  const places = session.at('form.gathered.places');
  const isInRows = (own.places ?? []).length === 0;
  const copy = picked === null ? undefined : view.copies[picked];
  const at = copy?.number ?? null;
  return (
    <Rows title="Laid" aside={<span>{isInRows ? 'in rows' : 'by their places'}</span>}>
      <div className="laid-acts">
        <Button
          size="sm"
          variant="outline-primary"
          disabled={isInRows || isRunning}
          onClick={() => void session.keep(set(places, null))}
        >
          in rows
        </Button>
        <Button
          size="sm"
          variant="outline-primary"
          onClick={() => (isRunning ? stop() : void start(turning))}
        >
          {isRunning ? 'enough' : 'close together'}
        </Button>
      </div>
      <ChoiceField
        label="Close together"
        value={turning}
        choices={TURNS}
        onChoose={(value) => setTurning(value as Turning)}
      />
      {isRunning && <p className="laid-hint">Laying closer …</p>}
      {trouble && (
        <p className="lay-note lay-trouble" role="alert">
          {trouble}
        </p>
      )}
      {copy && at !== null ? (
        (
          [
            ['x', 'From the left', undefined],
            ['y', 'From the top', undefined],
            ['turn', 'Turned', 'angle'],
          ] as const
        ).map(([name, label, measured]) => (
          <FigureField
            key={name}
            figure={{
              field: `${places}.${at}.${name}`,
              label,
              note: 'Of the middle of the copy that is picked.',
              value: copy.place[name],
            }}
            session={session}
            unit={unit}
            least={-10000}
            {...(measured ? { measured } : {})}
          />
        ))
      ) : (
        <p className="laid-hint">Drag a copy, or move it with the arrow keys; R turns it.</p>
      )}
    </Rows>
  );
}
