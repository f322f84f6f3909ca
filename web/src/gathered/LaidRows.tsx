/** How copies lie on a card: in rows, close together, or by hand. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import { set } from '../api/fields';
import type { Gathered, GatheredView, Turning, UnitInfo } from '../api/generated/types';
import { ChoiceField } from '../card/ChoiceField';
import { FigureField } from '../card/FigureField';
import { Rows } from '../card/SpecCard';
import type { PieceSession } from '../job/pieces';

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
  const [isBusy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const places = session.at('form.gathered.places');
  const isInRows = (own.places ?? []).length === 0;
  const close = async () => {
    setBusy(true);
    setTrouble(null);
    try {
      const found = await api.closeTogether(session.latest(), session.own.id, turning);
      await session.keep(set(places, found));
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.problem.errors[0]?.message ?? error.message);
    }
    setBusy(false);
  };
  const copy = picked === null ? undefined : view.copies[picked];
  const at = copy?.number ?? null;
  return (
    <Rows title="Laid" aside={<span>{isInRows ? 'in rows' : 'by their places'}</span>}>
      <div className="laid-acts">
        <Button
          size="sm"
          variant="outline-primary"
          disabled={isInRows}
          onClick={() => void session.keep(set(places, null))}
        >
          in rows
        </Button>
        <Button size="sm" variant="outline-primary" disabled={isBusy} onClick={() => void close()}>
          {isBusy ? 'laying …' : 'close together'}
        </Button>
      </div>
      <ChoiceField
        label="Close together"
        value={turning}
        choices={TURNS}
        onChoose={(value) => setTurning(value as Turning)}
      />
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
