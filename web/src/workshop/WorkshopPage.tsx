/** The workshop: what the makers own, each record drawn as its figures say. */
import { useQueryClient } from '@tanstack/react-query';

import { PageTop } from '../top/PageTop';
import { useState } from 'react';
import { Alert, Button } from 'react-bootstrap';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { useEffect } from 'react';

import { api, Failure } from '../api/client';
import { useMeta } from '../api/queries';
import type { Keeping, RecordKind, WorkshopState } from '../api/generated/types';
import { Switch } from '../card/Switch';
import { asKind, KINDS, recordsOf } from './kinds';
import { RecordDesk } from './RecordDesk';
import { type HeldChanges, useHeld } from './useHeld';
import { useInTurn, useShowState, useWorkshopState } from './useRecord';
import { useWorkshopUnit } from './useWorkshopUnit';

export function WorkshopPage() {
  const { kind: named, id } = useParams();
  const kind = asKind(named);
  const state = useWorkshopState();
  const held = useHeld();
  useEffect(() => {
    document.title = 'Workshop · Aptum';
  }, []);
  if (kind === null) return <Navigate to="/workshop/stocks" replace />;
  if (state.error) {
    return (
      <main className="message-page">
        <Alert variant="danger">{state.error.message}</Alert>
        <Button onClick={() => void state.refetch()}>Try again</Button> <Link to="/">All jobs</Link>
      </main>
    );
  }
  if (!state.data) return <main className="message-page" aria-busy="true" />;
  return <Open key={kind} state={state.data} held={held} kind={kind} id={id ?? null} />;
}

const WORDS: Record<Keeping, string> = { 'at-hand': 'at hand', kept: '', retired: 'retired' };

interface OpenProps {
  state: WorkshopState;
  held: HeldChanges;
  kind: RecordKind;
  id: string | null;
}

function Open({ state, held, kind, id }: OpenProps) {
  const navigate = useNavigate();
  const show = useShowState();
  const inTurn = useInTurn();
  const client = useQueryClient();
  const newest = () => client.getQueryData<WorkshopState>(['workshop-state']);
  const { unit, units, choose } = useWorkshopUnit();
  const [trouble, setTrouble] = useState<string | null>(null);
  const starts = useMeta().data?.starts;
  const start = starts?.records.find((record) => record.kind === kind);
  const records = recordsOf(state.workshop, kind);
  const chosen = records.find((entry) => entry.id === id) ?? records[0];
  const { one, about } = KINDS.find((known) => known.kind === kind) ?? { one: '', about: '' };

  // Each is told the version that the one before it made: a button may be pressed again before the first is answered.
  const run = async (work: (version: number) => Promise<WorkshopState>) => {
    try {
      const next = await inTurn(async () => {
        const made = await work(newest()?.version ?? state.version);
        show(made);
        return made;
      });
      setTrouble(null);
      // Undo and redo may reach another kind than the one on the page.
      if (next.touched) {
        const { kind, id, is_there } = next.touched;
        await navigate(is_there ? `/workshop/${kind}/${id}` : `/workshop/${kind}`);
      }
      return true;
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
      return false;
    }
  };
  return (
    <div className="desk workshop">
      <PageTop
        title="Workshop"
        tools={
          <>
            <Switch
              label="Unit"
              value={unit.unit}
              choices={units.map((known) => ({ value: known, label: known }))}
              onChoose={choose}
            />
            <Button
              variant="light"
              size="sm"
              disabled={!state.can_undo}
              onClick={() => void run(api.undoWorkshop)}
            >
              Undo
            </Button>
            <Button
              variant="light"
              size="sm"
              disabled={!state.can_redo}
              onClick={() => void run(api.redoWorkshop)}
            >
              Redo
            </Button>
          </>
        }
      >
        <nav className="route workshop-kinds" aria-label="Kinds of records">
          <ol>
            {KINDS.map((known) => (
              <li key={known.kind}>
                <Link
                  to={`/workshop/${known.kind}`}
                  className="station"
                  aria-current={known.kind === kind ? 'page' : undefined}
                >
                  {known.name}
                </Link>
              </li>
            ))}
          </ol>
        </nav>
      </PageTop>
      {trouble && (
        <div className="trouble" role="alert">
          {trouble}
          <Button size="sm" variant="link" onClick={() => setTrouble(null)}>
            Close
          </Button>
        </div>
      )}
      <main className="stage">
        <nav className="record-list" aria-label={`Every ${one}`}>
          <p className="record-about">{about}</p>
          <ul>
            {records.map((entry) => (
              <li key={entry.id}>
                <Link
                  to={`/workshop/${kind}/${entry.id}`}
                  className={`record-link is-${entry.record.keeping}`}
                  aria-current={entry.id === chosen?.id ? 'page' : undefined}
                >
                  {entry.record.name}
                  <span>
                    {held.all[`${kind}/${entry.id}`] ? 'not saved' : WORDS[entry.record.keeping]}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
          <Button
            size="sm"
            variant="outline-primary"
            disabled={!start}
            onClick={() => start && void run((version) => api.addRecord(version, start, unit.unit))}
          >
            New {one}
          </Button>
        </nav>
        {chosen ? (
          <RecordDesk
            key={chosen.id}
            id={chosen.id}
            saved={chosen.record}
            state={state}
            held={held}
            unit={unit}
            onCopy={(record) =>
              run((version) =>
                api.addRecord(version, { ...record, name: `${record.name} (copy)` }, unit.unit),
              )
            }
            onRemove={() => void run((version) => api.removeRecord(version, kind, chosen.id))}
          />
        ) : (
          <p className="empty">
            There is none yet. Add the first: its drawing follows its figures.
          </p>
        )}
      </main>
    </div>
  );
}
