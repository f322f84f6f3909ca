/** The operations, in the order in which they run: station, force, speed, passes, on or off. */
import { Button } from 'react-bootstrap';

import type {
  OperationSay,
  OperationView,
  Tooling,
  ToolingView,
  UnitInfo,
} from '../api/generated/types';
import { useMeta } from '../api/queries';
import { ChoiceField } from '../card/ChoiceField';
import { PlainLength } from '../card/PlainLength';
import { Result, Rows } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { errorsOf } from '../job/StageProps';
import type { JobSession } from '../job/useJobSession';

interface Props {
  view: ToolingView;
  tooling: Tooling;
  chosen: number | null;
  onChoose: (operation: number | null) => void;
  onKeep: (tooling: Tooling) => void;
  session: JobSession;
  unit: UnitInfo;
}

export function OperationRows(props: Props) {
  const { view, chosen, onChoose } = props;
  return (
    <Rows title="Operations, in order">
      {view.operations.map((own, at) => (
        <div key={own.kind} className={`operation${chosen === at ? ' is-open' : ''}`}>
          {own.is_after_stop && (
            <p className="operation-stop">
              stop: the {own.tool} goes into {own.station}
            </p>
          )}
          <Button
            variant="plain"
            aria-expanded={chosen === at}
            onClick={() => onChoose(chosen === at ? null : at)}
          >
            <svg viewBox="0 0 40 6" aria-hidden="true">
              <path d="M0 3H40" className={`line-${own.kind}`} />
            </svg>
            <b>{own.name}</b>
            <span className="figure">{own.is_off ? 'off' : own.time_text}</span>
          </Button>
          {chosen === at && <Operation {...props} own={own} />}
        </div>
      ))}
    </Rows>
  );
}

function Operation({ own, tooling, onKeep, session, unit }: Props & { own: OperationView }) {
  const starts = useMeta().data?.starts;
  const say: OperationSay = tooling.operations?.[own.kind] ?? {};
  const keep = (next: OperationSay) => {
    const told = Object.fromEntries(Object.entries(next).filter(([, value]) => value !== null));
    onKeep({ ...tooling, operations: { ...tooling.operations, [own.kind]: told } });
  };
  const field = (name: string) => `tooling.operations.${own.kind}.${name}`;
  const told = (key: 'force' | 'speed', label: string, suffix: string) => (
    <>
      <SwitchField
        label={label}
        value={own[key] === null ? 'machine' : 'told'}
        choices={[
          { value: 'machine', label: 'left to the machine' },
          { value: 'told', label: suffix },
        ]}
        onChoose={(how) =>
          keep({ ...say, [key]: how === 'told' ? (starts?.operation[key] ?? null) : null })
        }
      />
      {own[key] !== null && (
        <PlainLength
          label={`${label}, ${suffix}`}
          value={own[key]}
          unit={unit}
          measured="amount"
          errors={errorsOf(session, field(key))}
          onTry={() => undefined}
          onKeep={(value) => keep({ ...say, [key]: value })}
        />
      )}
    </>
  );
  return (
    <div className="operation-fields">
      <SwitchField
        label="Worked"
        value={own.is_off ? 'off' : 'on'}
        choices={[
          { value: 'on', label: 'on' },
          { value: 'off', label: 'off' },
        ]}
        onChoose={(how) => keep({ ...say, off: how === 'off' })}
      />
      {own.stations.length > 0 ? (
        <ChoiceField
          label={`Station with a ${own.tool}`}
          value={say.station ?? own.stations[0] ?? ''}
          choices={own.stations.map((name) => ({ value: name, label: name }))}
          errors={errorsOf(session, field('station'))}
          onChoose={(station) => keep({ ...say, station })}
        />
      ) : (
        <p className="lay-note lay-trouble">No station of this cutter holds a {own.tool}.</p>
      )}
      {told('force', 'Force', 'N')}
      {told('speed', 'Speed', 'mm/s')}
      <PlainLength
        label="Passes"
        value={own.passes}
        unit={unit}
        measured="count"
        errors={errorsOf(session, field('passes'))}
        onTry={() => undefined}
        onKeep={(passes) => keep({ ...say, passes })}
      />
      <Result label="Lines" value={`${own.lines}, ${own.length_text}`} />
    </div>
  );
}
