/** A run at the machines: one step at a time, read from a metre away, with one key to go on. */
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';

import type { RunStands, RunStepView } from '../api/generated/types';
import { Result, Rows, SpecCard } from '../card/SpecCard';
import type { StageProps } from '../job/StageProps';
import { CountRows } from './CountRows';
import { CorrectionRows } from './CorrectionRows';
import { PrintRow } from './PrintRow';
import { ScaleRow } from './ScaleRow';
import { SendRow } from './SendRow';
import { StepDrawing } from './StepDrawing';
import type { Running } from './useRun';

interface Props extends StageProps {
  run: Running;
  stands: RunStands;
  onFiles: () => void;
}

export function RunSteps({ session, unit, workshop, notice, run, stands, onFiles }: Props) {
  const [looked, setLooked] = useState<string | null>(null);
  const { steps, next } = stands;
  const now = steps[next ?? steps.length - 1];
  const step = steps.find(({ id }) => id === looked) ?? now;
  const isNow = step !== undefined && next !== null && step.id === now?.id;
  const isOpen = !stands.is_held && !stands.is_stopped && !run.isBusy;
  const isReady = isNow && isOpen && step.held_by === null;
  const tick = () => {
    if (!isReady) return;
    setLooked(null);
    void run.change({ do: 'tick', step: step.id });
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target instanceof HTMLElement ? event.target.tagName : '';
      if (event.key !== 'Enter' || ['INPUT', 'SELECT', 'BUTTON', 'A', 'TEXTAREA'].includes(target))
        return;
      event.preventDefault();
      tick();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  if (!step) return null;
  const isAll = next === null;
  return (
    <main className="stage">
      <div className="board-wrap run-steps">
        <ol className="run-ruler" aria-label="Steps">
          {steps.map((own, at) => (
            <li key={own.id} className={stateOf(own, at, next)}>
              <button
                type="button"
                aria-current={own.id === step.id ? 'step' : undefined}
                onClick={() => setLooked(own.id)}
              >
                <span>{own.title}</span>
                <small className="figure">
                  {own.times > 1 ? `${own.done} of ${own.times}` : own.at.slice(-5)}
                </small>
              </button>
            </li>
          ))}
        </ol>
        {stands.differs && (
          <p className="run-differs" role="alert">
            Sheet {stands.code} was printed before the change: cut it as printed, or print again.{' '}
            <Button
              size="sm"
              variant="outline-primary"
              disabled={session.saving !== 'saved' || run.isBusy}
              onClick={() => run.freeze(session.version)}
            >
              Print again
            </Button>
          </p>
        )}
        <section className="run-step" aria-live="polite">
          <p className="run-count">
            {isAll ? 'All is done' : `Step ${steps.indexOf(step) + 1} of ${steps.length}`}
            {step.times > 1 && `, sheet ${step.sheet} of ${step.times}`}
          </p>
          <h2>{step.title}</h2>
          <ul>
            {step.says.map((says) => (
              <li key={says}>{says}</li>
            ))}
          </ul>
          {step.kind === 'print' && <PrintRow stands={stands} isOpen={isOpen} />}
          {step.kind === 'measure' && stands.scale && (
            <ScaleRow scale={stands.scale} unit={unit} run={run} />
          )}
          {step.kind === 'cut' && <SendRow key={step.id} {...{ stands, step }} isOpen={isReady} />}
          {step.kind === 'count' && <CountRows pieces={stands.pieces} run={run} />}
          {isNow && step.held_by !== null && step.kind !== 'measure' && (
            <p className="run-wrong">{step.held_by}</p>
          )}
          {run.trouble && (
            <p className="run-wrong" role="alert">
              {run.trouble}
            </p>
          )}
          <div className="run-go">
            <Button size="lg" variant="primary" disabled={!isReady} onClick={tick} title="Enter">
              {doneWords(step)}
            </Button>
            <Button
              variant="outline-primary"
              disabled={run.isBusy || stands.is_stopped || step.done === 0}
              onClick={() => {
                setLooked(null);
                void run.change({ do: 'back', step: step.id });
              }}
            >
              Not done after all
            </Button>
          </div>
        </section>
        <StepDrawing step={step} stands={stands} />
      </div>
      <SpecCard
        title={`Sheet ${stands.code}`}
        subtitle={`Printed ${stands.made_at}. Force, order, passes and nicks are still free.`}
        notice={notice}
        action={
          <Button size="sm" variant="outline-primary" onClick={onFiles}>
            The files
          </Button>
        }
      >
        <Rows title="This run" page="frozen">
          <Result
            label="Steps done"
            value={`${steps.filter((own) => own.done >= own.times).length} of ${steps.length}`}
          />
          <Result label="Good pieces" value={String(stands.good)} />
          <Result label="Bad pieces" value={String(stands.bad)} />
          <div className="run-hold">
            {stands.is_stopped ? (
              <p className="card-note is-broken">
                Stopped for good. Print the sheets again to begin anew.
              </p>
            ) : (
              <>
                <Button
                  size="sm"
                  variant="outline-primary"
                  disabled={run.isBusy}
                  onClick={() => void run.change({ do: stands.is_held ? 'resume' : 'hold' })}
                >
                  {stands.is_held ? 'Go on' : 'Pause'}
                </Button>
                <Button
                  size="sm"
                  variant="outline-primary"
                  disabled={run.isBusy}
                  onClick={() => void run.change({ do: 'stop' })}
                >
                  Stop for good
                </Button>
              </>
            )}
          </div>
        </Rows>
        {stands.files.length > 0 && (
          <Rows title="Files for the machine">
            <ul className="files">
              {stands.files.map((file) => (
                <li key={file.path}>
                  <a href={`/api/prints/${stands.id}/${file.path}`} download>
                    {file.name}
                  </a>
                  <span>
                    {file.sheets[0] === file.sheets[1]
                      ? `sheet ${file.sheets[0]}`
                      : `sheets ${file.sheets[0]} to ${file.sheets[1]}, all alike`}
                    , as printed
                  </span>
                </li>
              ))}
            </ul>
          </Rows>
        )}
        {stands.cutter !== null && (
          <CorrectionRows {...{ session, unit, workshop }} places={stands.places} />
        )}
        <Rows title="Sheets printed">
          {run.view?.prints.map((print) => (
            <Result
              key={print.id}
              label={`${print.code}, ${print.made_at}`}
              value={
                print.good + print.bad > 0
                  ? `${print.good} good, ${print.bad} bad`
                  : print.differs
                    ? 'before the change'
                    : 'as the job is'
              }
            />
          ))}
          <Button
            size="sm"
            variant="outline-primary"
            disabled={session.saving !== 'saved' || run.isBusy}
            onClick={() => run.freeze(session.version)}
          >
            Print again, as a new run
          </Button>
        </Rows>
      </SpecCard>
    </main>
  );
}

function stateOf(step: RunStepView, at: number, next: number | null): string {
  if (step.done >= step.times) return 'is-done';
  return at === next ? 'is-now' : '';
}

function doneWords(step: RunStepView): string {
  switch (step.kind) {
    case 'print':
      return 'Printed';
    case 'measure':
      return 'Measured';
    case 'look':
      return 'It is through';
    case 'load':
      return 'Loaded';
    case 'cut':
      return 'Cut';
    case 'count':
      return 'Counted';
    default:
      return 'Done';
  }
}
