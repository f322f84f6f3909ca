/** How far each crease folds, and which panel stays where it is. */
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { CreaseView, DrawingView, LineDrawing, UnitInfo } from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import { Rows } from '../card/SpecCard';
import type { PieceSession } from '../job/pieces';

interface Props {
  session: PieceSession;
  own: LineDrawing;
  view: DrawingView;
  unit: UnitInfo;
  isRooting: boolean;
  onRoot: (is: boolean) => void;
  onLit: (panel: string | null) => void;
}

export function CreaseRows({ session, own, view, unit, isRooting, onRoot, onLit }: Props) {
  if (view.creases.length === 0) return null;
  const at = (name: string) => session.at(`form.drawing.${name}`);
  const folds = own.folds ?? [];
  const fold = (crease: CreaseView, degrees: number) => {
    const say = { at: crease.at, degrees };
    const told = crease.told_by;
    void session.keep(set(at('folds'), told === null ? [...folds, say] : folds.with(told, say)));
  };
  return (
    <Rows
      title="Folds"
      aside={
        <Button
          size="sm"
          variant={isRooting ? 'primary' : 'outline-primary'}
          aria-pressed={isRooting}
          onClick={() => onRoot(!isRooting)}
        >
          {isRooting ? 'press on a panel' : 'another panel stays'}
        </Button>
      }
    >
      {view.creases.map((crease) => (
        <div
          key={crease.name}
          onPointerEnter={() => onLit(crease.name)}
          onPointerLeave={() => onLit(null)}
        >
          <PlainLength
            label={`${crease.name} on ${crease.on.toLowerCase()}`}
            note="From flat to closed; above 0 away from the printed side, below towards it."
            value={crease.degrees}
            unit={unit}
            measured="angle"
            onTry={() => undefined}
            onKeep={(degrees) => {
              if (degrees !== crease.degrees) fold(crease, degrees);
            }}
          />
        </div>
      ))}
      {folds.length > 0 && (
        <Button size="sm" variant="link" onClick={() => void session.keep(set(at('folds'), null))}>
          all as drawn
        </Button>
      )}
    </Rows>
  );
}
