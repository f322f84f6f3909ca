/** What is said of one operation: station, force, speed, passes, depth, when and how. */
import { Button } from 'react-bootstrap';

import { remove, set } from '../api/fields';
import type {
  FieldChange,
  ForceUnit,
  Moment,
  OperationSay,
  OperationView,
  Reverse,
  Tooling,
  UnitInfo,
} from '../api/generated/types';
import { useMeta } from '../api/queries';
import { ChoiceField } from '../card/ChoiceField';
import { PlainLength } from '../card/PlainLength';
import { Result } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { errorsOf } from '../job/StageProps';
import type { JobSession } from '../job/useJobSession';
import { SYMBOLS } from './units';

const MOMENTS: { value: Moment; label: string }[] = [
  { value: 'before-print', label: 'before the print' },
  { value: 'between-inks', label: 'after colour, before varnish' },
  { value: 'after-print', label: 'when all is printed' },
];

const WAYS: { value: Reverse; label: string }[] = [
  { value: 'pressed', label: 'pressed from the front' },
  { value: 'scored', label: 'scored from the front' },
  { value: 'perforated', label: 'perforated' },
  { value: 'from-behind', label: 'pressed from behind' },
];

interface Props {
  own: OperationView;
  tooling: Tooling;
  forceUnit: string;
  onKeep: (...changes: FieldChange[]) => void;
  session: JobSession;
  unit: UnitInfo;
}

export function OperationFields({ own, tooling, forceUnit, onKeep, session, unit }: Props) {
  const starts = useMeta().data?.starts;
  const say: OperationSay = tooling.operations?.[own.id] ?? {};
  const at = (id: string) => `tooling.operations.${id}`;
  const keep = (told: OperationSay) =>
    onKeep(...Object.entries(told).map(([name, value]) => set(`${at(own.id)}.${name}`, value)));
  const errors = (name: string) => errorsOf(session, `${at(own.id)}.${name}`);
  const symbol = SYMBOLS[forceUnit as ForceUnit];
  const start = starts?.forces.find((force) => force.unit === forceUnit);
  const hasDepth = own.depth_setting !== null && own.tool === 'knife';
  return (
    <div className="operation-fields">
      {own.recipe ? (
        <div className="recipe">
          <span>
            Recipe <b>{own.recipe.name}</b>
            {own.recipe.worked && `, worked ${own.recipe.worked}`}
          </span>
          {own.recipe.differs.map((words) => (
            <em key={words}>{words}</em>
          ))}
          {own.recipe.differs.length > 0 && (
            <Button
              size="sm"
              variant="outline-primary"
              onClick={() => keep({ force: null, speed: null, passes: null, depth: null })}
            >
              As the recipe says
            </Button>
          )}
        </div>
      ) : (
        <p className="lay-note">
          No recipe for this card, cutter and tool: the machine’s own settings, or cut a test.
        </p>
      )}
      {own.last && (
        <div className="recipe">
          <span>
            Last time <b>{own.last.words}</b>, {own.last.made_at.slice(0, 10)}: {own.last.settings}
          </span>
          {own.last.is_good && !own.last.is_same && (
            <Button
              size="sm"
              variant="outline-primary"
              onClick={() => {
                const { force, speed, passes, depth } = own.last ?? own;
                keep({ force, speed, passes, depth });
              }}
            >
              As last time
            </Button>
          )}
        </div>
      )}
      <SwitchField
        label="Worked"
        value={own.is_off ? 'off' : 'on'}
        choices={[
          { value: 'on', label: 'on' },
          { value: 'off', label: 'off' },
        ]}
        onChoose={(how) => keep({ off: how === 'off' })}
      />
      {own.stations.length > 0 ? (
        <ChoiceField
          label={`Station with a ${own.tool}`}
          value={say.station ?? own.stations[0] ?? ''}
          choices={own.stations.map((name) => ({ value: name, label: name }))}
          errors={errors('station')}
          onChoose={(station) => keep({ station })}
        />
      ) : (
        <p className="lay-note lay-trouble">No station of this cutter holds a {own.tool}.</p>
      )}
      <Told
        label="Force"
        suffix={symbol}
        isTold={own.force !== null}
        onTell={(isTold) => keep({ force: isTold ? (start ?? null) : null })}
      />
      {own.force !== null && (
        <PlainLength
          label={`Force, ${SYMBOLS[own.force.unit]}`}
          value={own.force.amount}
          unit={unit}
          measured="amount"
          errors={errors('force.amount')}
          onTry={() => undefined}
          onKeep={(amount) => keep({ force: { amount, unit: forceUnit as ForceUnit } })}
        />
      )}
      <Told
        label="Speed"
        suffix="mm/s"
        isTold={own.speed !== null}
        onTell={(isTold) => keep({ speed: isTold ? (starts?.speed ?? null) : null })}
      />
      {own.speed !== null && (
        <PlainLength
          label="Speed, mm/s"
          value={own.speed}
          unit={unit}
          measured="amount"
          errors={errors('speed')}
          onTry={() => undefined}
          onKeep={(speed) => keep({ speed })}
        />
      )}
      <PlainLength
        label="Passes"
        value={own.passes}
        unit={unit}
        measured="count"
        errors={errors('passes')}
        onTry={() => undefined}
        onKeep={(passes) => keep({ passes })}
      />
      {hasDepth && (
        <Told
          label="Blade depth"
          suffix="step"
          left="as it is"
          isTold={own.depth !== null}
          onTell={(isTold) => keep({ depth: isTold ? 1 : null })}
        />
      )}
      {hasDepth && own.depth !== null && (
        <PlainLength
          label="Depth, step"
          value={own.depth}
          unit={unit}
          measured="amount"
          errors={errors('depth')}
          onTry={() => undefined}
          onKeep={(depth) => keep({ depth })}
        />
      )}
      {own.kind === 'reverse-crease' && (
        <ChoiceField
          label="Made"
          value={own.reverse}
          choices={WAYS}
          onChoose={(reverse) => keep({ reverse: reverse as Reverse })}
        />
      )}
      <ChoiceField
        label="When"
        value={own.when}
        choices={MOMENTS}
        onChoose={(when) => keep({ when: when === 'after-print' ? null : (when as Moment) })}
      />
      <Result label="Lines" value={`${own.lines}, ${own.length_text}`} />
      <div className="operation-moves">
        {own.shares.map((share) => (
          <Button
            key={share.id}
            size="sm"
            variant="link"
            onClick={() => onKeep(set(at(share.id), {}))}
          >
            Split off {share.name}
          </Button>
        ))}
        {own.is_share && (
          <Button size="sm" variant="link" onClick={() => onKeep(remove(at(own.id)))}>
            Join with the others
          </Button>
        )}
      </div>
    </div>
  );
}

interface ToldProps {
  label: string;
  suffix: string;
  left?: string;
  isTold: boolean;
  onTell: (isTold: boolean) => void;
}

/** A setting that is told, or left alone. */
function Told({ label, suffix, left = 'left to the machine', isTold, onTell }: ToldProps) {
  return (
    <SwitchField
      label={label}
      value={isTold ? 'told' : 'left'}
      choices={[
        { value: 'left', label: left },
        { value: 'told', label: suffix },
      ]}
      onChoose={(how) => onTell(how === 'told')}
    />
  );
}
