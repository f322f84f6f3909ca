/** How far each crease folds, and which panel stays where it is. */
import { Button } from 'react-bootstrap';

import { add, set } from '../api/fields';
import type {
  CreaseView,
  DrawingView,
  DrawnPanelView,
  LineDrawing,
  UnitInfo,
} from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import { WordsField } from '../card/WordsField';
import { errorsOf } from '../job/StageProps';
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
  const steps = own.steps ?? [];
  const fold = (crease: CreaseView, degrees: number) => {
    const say = { at: crease.at, degrees };
    const told = crease.told_by;
    void session.keep(
      told === null ? add(at('folds'), say) : set(at(`folds.${told}.degrees`), degrees),
    );
  };
  return (
    <Rows
      title="Folds"
      page="folding"
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
      {steps.length > 0 && (
        <div className="told-steps">
          <span>
            Folded in the order that is told
            <small>{steps.map(({ text }) => text).join(' · ')}</small>
          </span>
          <Button
            size="sm"
            variant="link"
            onClick={() => void session.keep(set(at('steps'), null))}
          >
            find them anew
          </Button>
        </div>
      )}
      {folds.length > 0 && (
        <Button size="sm" variant="link" onClick={() => void session.keep(set(at('folds'), null))}>
          all as drawn
        </Button>
      )}
    </Rows>
  );
}

/** What panels are called; what lies on them goes with the name. */
export function PanelRows({ session, view, onLit }: Pick<Props, 'session' | 'view' | 'onLit'>) {
  if (view.panels.length === 0) return null;
  const field = (name: string) => session.at(`form.drawing.${name}`);
  const call = (panel: DrawnPanelView, name: string) => {
    const [before, told] = [panel.name, panel.told_by];
    const layers = session.own.face?.layers ?? [];
    const lying = layers.flatMap((layer) =>
      'panels' in layer && layer.panels.includes(before)
        ? [
            set(
              session.at(`face.layers.${layer.id}.panels`),
              layer.panels.map((own) => (own === before ? name : own)),
            ),
          ]
        : [],
    );
    void session.keep(
      told === null
        ? add(field('names'), { at: panel.at, name })
        : set(field(`names.${told}.name`), name),
      ...lying,
    );
  };
  return (
    <Rows title="Panels">
      {view.panels.map((panel, number) => (
        <div
          key={panel.at.join()}
          onPointerEnter={() => onLit(panel.name)}
          onPointerLeave={() => onLit(null)}
        >
          <WordsField
            label={`Panel ${number + 1} is called`}
            value={panel.name}
            errors={errorsOf(session, field('names'))}
            onKeep={(words) => {
              const name = words.trim();
              const isFree = view.panels.every((other) => other.name !== name);
              if (name && isFree) call(panel, name);
            }}
          />
        </div>
      ))}
    </Rows>
  );
}
