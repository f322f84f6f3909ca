/** The workshop: what the makers own, each record drawn as its figures say. */
import { useState } from 'react';
import { Alert, Button } from 'react-bootstrap';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { useEffect } from 'react';

import { api, Failure } from '../api/client';
import { useUnit } from '../api/queries';
import type { RecordKind, WorkshopState } from '../api/generated/types';
import { asKind, FIRST, KINDS, recordsOf } from './kinds';
import { RecordDesk } from './RecordDesk';
import { useShowState, useWorkshopState } from './useRecord';

export function WorkshopPage() {
  const { kind: named, id } = useParams();
  const kind = asKind(named);
  const state = useWorkshopState();
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
  return <Open key={kind} state={state.data} kind={kind} id={id ?? null} />;
}

interface OpenProps {
  state: WorkshopState;
  kind: RecordKind;
  id: string | null;
}

function Open({ state, kind, id }: OpenProps) {
  const navigate = useNavigate();
  const show = useShowState();
  const unit = useUnit('mm');
  const [trouble, setTrouble] = useState<string | null>(null);
  const records = recordsOf(state.workshop, kind);
  const chosen = records.find((entry) => entry.id === id) ?? records[0];
  const { one, about } = KINDS.find((known) => known.kind === kind) ?? { one: '', about: '' };

  const run = async (work: () => Promise<WorkshopState>) => {
    try {
      const next = await work();
      show(next);
      setTrouble(null);
      if (next.touched) await navigate(`/workshop/${kind}/${next.touched}`);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
    }
  };
  const { version } = state;
  return (
    <div className="desk workshop">
      <header className="top">
        <div className="brand">
          <Link to="/" className="brand-name" title="All jobs">
            Aptum
          </Link>
          <span className="brand-line">Workshop</span>
        </div>
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
        <div className="tools">
          <Button
            variant="light"
            size="sm"
            disabled={!state.can_undo}
            onClick={() => void run(() => api.undoWorkshop(version))}
          >
            Undo
          </Button>
          <Button
            variant="light"
            size="sm"
            disabled={!state.can_redo}
            onClick={() => void run(() => api.redoWorkshop(version))}
          >
            Redo
          </Button>
        </div>
      </header>
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
                    {entry.record.keeping === 'at-hand' && 'at hand'}
                    {entry.record.keeping === 'retired' && 'retired'}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
          <Button
            size="sm"
            variant="outline-primary"
            onClick={() => void run(() => api.addRecord(version, FIRST[kind]))}
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
            unit={unit}
            onCopy={(record) =>
              void run(() => api.addRecord(version, { ...record, name: `${record.name} (copy)` }))
            }
            onRemove={() => void run(() => api.removeRecord(version, kind, chosen.id))}
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
