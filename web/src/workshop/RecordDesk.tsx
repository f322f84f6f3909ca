/** One record: its drawing, its figures, and the jobs that use it. */
import { token } from '../style/token';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';

import type {
  Keeping,
  Record as Entry,
  UnitInfo,
  Workshop,
  WorkshopState,
} from '../api/generated/types';
import { Rows, SpecCard } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { CutterFields } from './CutterFields';
import { TextField } from './fields';
import { CarrierFields, MarkFields, type Of, PrinterFields } from './MachineFields';
import { PrintRecipeFields } from './PrintRecipeFields';
import { RecipeFields } from './RecipeFields';
import { RecordBoard } from './RecordBoard';
import { StockFields } from './StockFields';
import type { HeldChanges } from './useHeld';
import { type RecordSession, useRecord } from './useRecord';

interface Props {
  id: string;
  saved: Entry;
  state: WorkshopState;
  held: HeldChanges;
  unit: UnitInfo;
  /** Resolves to true once there is a copy. */
  onCopy: (record: Entry) => Promise<boolean>;
  onRemove: () => void;
}

export function RecordDesk({ id, saved, state, held, unit, onCopy, onRemove }: Props) {
  const session = useRecord({ id, saved, state, held, unit: unit.unit });
  const { record, users, drawing } = session;
  const jobs = users.length === 1 ? 'One job uses' : `${users.length || 'No'} jobs use`;
  const keepAsCopy = async () => {
    if (await onCopy(record)) session.drop();
  };
  return (
    <>
      {drawing ? (
        <RecordBoard
          drawing={drawing}
          unit={unit}
          name={record.name}
          colour={record.kind === 'stocks' ? record.colour : token('paper-white')}
        />
      ) : (
        <div className="board-wrap" aria-busy="true" />
      )}
      <SpecCard
        title={record.name}
        subtitle={users.length === 0 ? 'No job uses it' : `${jobs} it`}
        notice={
          <>
            {session.trouble && (
              <p className="lay-trouble" role="alert">
                {session.trouble}
              </p>
            )}
            {session.isHeld && (users.length > 0 || session.isWaiting) && (
              <section className="held" aria-label="Changes not saved yet" role="status">
                <p>
                  <b>{jobs} this.</b> {users.length > 0 && 'Their sheets change with it:'}
                </p>
                <ul>
                  {users.slice(0, 6).map((user) => (
                    <li key={user.id}>
                      <Link to={`/jobs/${user.id}/sheet`}>{user.name}</Link>
                    </li>
                  ))}
                  {users.length > 6 && <li>and {users.length - 6} more</li>}
                </ul>
                <div className="held-buttons">
                  <Button size="sm" onClick={session.release}>
                    Change it for all
                  </Button>
                  <Button size="sm" variant="outline-primary" onClick={() => void keepAsCopy()}>
                    Keep as a copy
                  </Button>
                  <Button size="sm" variant="link" onClick={session.drop}>
                    Drop
                  </Button>
                </div>
              </section>
            )}
          </>
        }
      >
        <Rows title="Name">
          <TextField
            session={session}
            field="name"
            label="Name"
            value={record.name}
            change={(now, name) => ({ ...now, name })}
          />
          <SwitchField<Keeping>
            label="Kept"
            value={record.keeping}
            choices={[
              { value: 'at-hand', label: 'at hand' },
              { value: 'kept', label: 'in lists' },
              { value: 'retired', label: 'retired' },
            ]}
            onChoose={(keeping) => session.keep({ ...record, keeping })}
          />
        </Rows>
        <Fields session={session} unit={unit} workshop={state.workshop} />
        <div className="record-buttons">
          <Button size="sm" variant="outline-primary" onClick={() => void onCopy(saved)}>
            Copy
          </Button>
          <Button
            size="sm"
            variant="link"
            disabled={users.length > 0}
            title={users.length > 0 ? 'Jobs use it: retire it instead' : undefined}
            onClick={onRemove}
          >
            Remove
          </Button>
          <span className={session.isHeld ? 'saving saving-not-saved' : 'saving'} role="status">
            {session.isSaving ? 'saving …' : session.isHeld ? 'not saved' : 'saved'}
          </span>
        </div>
      </SpecCard>
    </>
  );
}

interface FieldsProps {
  session: RecordSession;
  unit: UnitInfo;
  workshop: Workshop;
}

function Fields({ session, unit, workshop }: FieldsProps) {
  // The record's kind decides which session it is; TypeScript cannot follow that through a generic.
  const editing = <K extends Entry['kind']>() => ({
    session: session as unknown as RecordSession<Of<K>>,
    unit,
  });
  switch (session.record.kind) {
    case 'stocks':
      return <StockFields {...editing<'stocks'>()} />;
    case 'printers':
      return <PrinterFields {...editing<'printers'>()} />;
    case 'cutters':
      return <CutterFields {...editing<'cutters'>()} />;
    case 'carriers':
      return <CarrierFields {...editing<'carriers'>()} />;
    case 'mark_sets':
      return <MarkFields {...editing<'mark_sets'>()} />;
    case 'recipes':
      return <RecipeFields {...editing<'recipes'>()} workshop={workshop} />;
    case 'print_recipes':
      return <PrintRecipeFields {...editing<'print_recipes'>()} workshop={workshop} />;
  }
}
