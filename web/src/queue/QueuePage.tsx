/** The queue: sheets that were printed and wait for their machine, who is next, and what is done. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { Link } from 'react-router';

import { api, Failure } from '../api/client';
import type { MachineQueue, Queued, QueueView } from '../api/generated/types';
import { PageTop } from '../top/PageTop';
import './queue.css';

const isOver = ({ state }: Queued) => state === 'done' || state === 'stopped';

export function QueuePage() {
  const client = useQueryClient();
  const queue = useQuery({ queryKey: ['queue'], queryFn: api.queue, refetchInterval: 10_000 });
  const [trouble, setTrouble] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  useEffect(() => {
    document.title = 'Queue · Aptum';
  }, []);
  const make = async (work: () => Promise<QueueView>) => {
    setBusy(true);
    setTrouble(null);
    try {
      client.setQueryData(['queue'], await work());
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
    } finally {
      setBusy(false);
    }
  };
  const view = queue.data;
  const waiting =
    view?.machines.flatMap(({ prints }) => prints.filter((own) => !isOver(own))) ?? [];
  return (
    <div className="desk queue">
      <PageTop
        title="Queue"
        tools={
          <>
            <Link to="/logbook">Logbook</Link>
            <Link to="/">Jobs</Link>
          </>
        }
      />
      <main className="queue-desk">
        <section className="queue-machines">
          {(trouble ?? (queue.error instanceof Failure ? queue.error.message : null)) && (
            <p className="queue-trouble" role="alert">
              {trouble ?? queue.error?.message}
            </p>
          )}
          {view?.machines.length === 0 && (
            <p className="queue-none">
              Nothing was printed yet. Choose jobs beside this, and print their sheets together.
            </p>
          )}
          {view?.machines.map((machine) => (
            <Machine
              key={machine.name}
              machine={machine}
              isBusy={isBusy}
              onOrder={(order) => {
                const others = waiting.filter(({ id }) => !order.includes(id)).map(({ id }) => id);
                void make(() => api.orderQueue([...order, ...others]));
              }}
            />
          ))}
        </section>
        {view && (
          <PutIn
            view={view}
            isBusy={isBusy}
            onPut={(jobs) => make(() => api.putInQueue(jobs))}
            onRows={(job) => make(() => api.putRowsInQueue(job))}
          />
        )}
      </main>
    </div>
  );
}

interface MachineProps {
  machine: MachineQueue;
  isBusy: boolean;
  onOrder: (prints: number[]) => void;
}

function Machine({ machine, isBusy, onOrder }: MachineProps) {
  const waiting = machine.prints.filter((own) => !isOver(own));
  const move = (at: number, by: number) => {
    const order = waiting.map(({ id }) => id);
    const [own] = order.splice(at, 1);
    if (own !== undefined) order.splice(at + by, 0, own);
    onOrder(order);
  };
  return (
    <section className="queue-machine">
      <h2>
        {machine.name}{' '}
        <small>
          {waiting.length} {waiting.length === 1 ? 'waits' : 'wait'}
        </small>
      </h2>
      <ol>
        {machine.prints.map((own, at) => (
          <li
            key={own.id}
            className={`is-${own.state}${at === 0 && !isOver(own) ? ' is-next' : ''}`}
          >
            <span className="figure queue-number">{isOver(own) ? '' : at + 1}</span>
            <span className="queue-name">
              <Link to={`/jobs/${own.job}/run`}>{own.name}</Link>
              <small>
                <span className="figure">{own.code}</span>, {own.sheets}{' '}
                {own.sheets === 1 ? 'sheet' : 'sheets'}, {own.made_at}
              </small>
            </span>
            <span className="queue-state">
              {at === 0 && !isOver(own) ? 'next: ' : ''}
              {own.state_text}
              <progress value={own.share} max={1} aria-label={`${own.name}, done`} />
            </span>
            <span className="queue-moves">
              {!isOver(own) && (
                <>
                  <Button
                    size="sm"
                    variant="outline-primary"
                    aria-label={`${own.name} earlier`}
                    disabled={isBusy || at === 0}
                    onClick={() => move(at, -1)}
                  >
                    ↑
                  </Button>
                  <Button
                    size="sm"
                    variant="outline-primary"
                    aria-label={`${own.name} later`}
                    disabled={isBusy || at >= waiting.length - 1}
                    onClick={() => move(at, 1)}
                  >
                    ↓
                  </Button>
                </>
              )}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

interface PutProps {
  view: QueueView;
  isBusy: boolean;
  onPut: (jobs: number[]) => Promise<void>;
  /** Makes a job for each row of a job's list. */
  onRows: (job: number) => Promise<void>;
}

/** Jobs that go in together: a class, one net, thirty faces. */
function PutIn({ view, isBusy, onPut, onRows }: PutProps) {
  const [chosen, setChosen] = useState<number[]>([]);
  const there = chosen.filter((id) => view.others.some((own) => own.id === id));
  return (
    <aside className="spec-card" aria-label="Put jobs in">
      <span className="spec-hole" aria-hidden="true" />
      <div className="spec-title">
        <h2>Put jobs in</h2>
        <Button
          size="sm"
          variant="primary"
          disabled={isBusy || there.length === 0}
          onClick={() => void onPut(there).then(() => setChosen([]))}
        >
          {there.length > 1 ? `Print ${there.length} together` : 'Print and put in'}
        </Button>
      </div>
      <p className="spec-subtitle">Their sheets are frozen as they are now, in the order chosen.</p>
      <ul className="queue-others">
        {view.others.map(({ id, name, rows }) => (
          <li key={id}>
            <Form.Check
              id={`queue-${id}`}
              label={name}
              checked={there.includes(id)}
              onChange={(event) =>
                setChosen(
                  event.target.checked ? [...there, id] : there.filter((other) => other !== id),
                )
              }
            />
            {rows > 1 && (
              <Button
                variant="plain"
                disabled={isBusy}
                title="A sheet of its own for each row of the list, printed and put in together"
                aria-label={`${name}: a job for each of ${rows} rows`}
                onClick={() => void onRows(id)}
              >
                a job for each of {rows} rows
              </Button>
            )}
          </li>
        ))}
      </ul>
    </aside>
  );
}
