/** Test cuts: the next ladder in its place, what was tried so far, and an outcome for each rung by a tap. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';

import { api, Failure } from '../api/client';
import type { LogEntry, Outcome, TrialOn, Varied, Workshop } from '../api/generated/types';
import type { Preview } from '../api/views';
import { partsOf, SheetDrawing } from '../board/SheetDrawing';
import { ChoiceField } from '../card/ChoiceField';
import { Result, Rows, SpecCard } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import type { JobSession } from '../job/useJobSession';
import { token } from '../style/token';

const VARIED: { value: Varied; label: string }[] = [
  { value: 'force', label: 'force' },
  { value: 'depth', label: 'depth' },
  { value: 'speed', label: 'speed' },
  { value: 'passes', label: 'passes' },
];

interface Props {
  id: number;
  session: JobSession;
  preview: Preview;
  workshop: Workshop;
  run: number;
  operation: string;
  onClose: () => void;
}

export function TestCut({ id, session, preview, workshop, run, operation, onClose }: Props) {
  const client = useQueryClient();
  const [varied, setVaried] = useState<Varied>('force');
  const [on, setOn] = useState<TrialOn>('sheet');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [kept, setKept] = useState(false);
  const { job } = session;
  const cutter = job.sheet.cutter ? workshop.cutters[job.sheet.cutter] : undefined;
  const key = ['trial', id, preview.sheetKey, run, operation, varied, on, job.tooling];
  const trial = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      api.trial({ job: session.latest(), id, run, operation, varied, on }, signal),
    enabled: session.isCurrent,
    placeholderData: (before) => before,
    retry: false,
  });
  const view = trial.data;
  const attempt = async (work: () => Promise<unknown>) => {
    try {
      await work();
      setTrouble(null);
      await client.invalidateQueries({ queryKey: ['trial'] });
      await client.invalidateQueries({ queryKey: ['logbook'] });
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
    }
  };
  const tap = (entry: LogEntry, outcome: Outcome) =>
    void attempt(() => api.log({ ...entry, outcome }));
  const keepRecipe = () =>
    void attempt(async () => {
      if (!view?.recipe) return;
      const { version } = await api.workshopState();
      await api.addRecord(version, { kind: 'recipes', ...view.recipe }, job.unit);
      await client.invalidateQueries({ queryKey: ['workshop'] });
      setKept(true);
    });
  const values = view?.rungs.map(({ value }) => value).join(',') ?? '';
  const asked = new URLSearchParams({ operation, varied, values, run: String(run), on });
  const [width, height] = preview.sheet.page;
  const parts = partsOf(preview);
  return (
    <main className="stage">
      <div className="board-wrap tooling-desk">
        <svg
          className="tooling-board"
          viewBox={`-4 -4 ${width + 8} ${height + 8}`}
          role="img"
          aria-label="Where the ladder is cut"
        >
          {on === 'sheet' ? (
            <SheetDrawing
              {...{ parts, run }}
              sheet={preview.sheet}
              colour={token('card-bare')}
              shown="cut"
              lines={[]}
              copies={
                <g className="beside-ladder">
                  {(preview.sheet.layout.runs[run]?.placements ?? []).map((at) => (
                    <path
                      key={`${at.part} ${at.x} ${at.y}`}
                      d={parts[at.part]?.outline}
                      transform={`translate(${at.x} ${at.y}) rotate(${at.turn})`}
                    />
                  ))}
                </g>
              }
            />
          ) : (
            <rect className="page" width={width} height={height} />
          )}
          <g className="ladder">
            {view?.rungs.map((rung, at) => (
              <g key={rung.value}>
                <path d={rung.line} />
                <text x={rung.place[0] + rung.place[2] / 2} y={rung.place[1] - 2}>
                  {at + 1}
                </text>
              </g>
            ))}
          </g>
        </svg>
        {view && view.rungs.length > 0 && (
          <ol className="rungs" aria-label="The ladder">
            {view.rungs.map((rung, at) => (
              <li key={rung.value}>
                <span>
                  {at + 1} <b className="figure">{rung.text}</b>
                </span>
                {view.outcomes.map(({ outcome, text }) => (
                  <Button
                    key={outcome}
                    size="sm"
                    variant="outline-primary"
                    className={`outcome-${outcome}`}
                    onClick={() => tap(rung.entry, outcome)}
                  >
                    {text}
                  </Button>
                ))}
              </li>
            ))}
          </ol>
        )}
      </div>
      <SpecCard
        title="Test cut"
        subtitle={view?.title ?? ''}
        action={
          <Button size="sm" variant="link" onClick={onClose}>
            Back to the path
          </Button>
        }
      >
        {(trial.error ?? trouble) && (
          <p className="lay-trouble" role="alert">
            {trial.error?.message ?? trouble}
          </p>
        )}
        {view && (
          <>
            <p className={`ladder-advice${view.is_settled ? ' is-settled' : ''}`} role="status">
              {view.advice}
            </p>
            {view.trouble && <p className="lay-trouble">{view.trouble}</p>}
            {view.recipe &&
              (kept ? (
                <p className="card-note">
                  Kept: the job goes by it now. <Link to="/workshop/recipes">All recipes</Link>
                </p>
              ) : (
                <Button onClick={keepRecipe}>Keep as a recipe</Button>
              ))}
            <Rows title="The ladder">
              <ChoiceField
                label="Differs in"
                value={varied}
                choices={VARIED}
                onChoose={(next) => setVaried(next as Varied)}
              />
              <SwitchField
                label="Cut"
                value={on}
                choices={[
                  { value: 'sheet', label: 'on the sheet' },
                  { value: 'scrap', label: 'on a scrap' },
                ]}
                onChoose={setOn}
              />
              <Result label="Else" value={view.settings} />
              {view.seconds !== null && view.rungs.length > 0 && (
                <Result label="Takes" value={`${view.seconds.toFixed(0)} s`} />
              )}
              {view.rungs.length > 0 && (
                <div className="ladder-files">
                  {cutter?.dialect && (
                    <a href={`/api/jobs/${id}/trial/test.hpgl?${asked}`} download>
                      As HP-GL
                    </a>
                  )}
                  {cutter?.gcode && (
                    <a href={`/api/jobs/${id}/trial/test.nc?${asked}`} download>
                      As G-code
                    </a>
                  )}
                  <a href={`/api/jobs/${id}/trial/test.svg?${asked}`} download>
                    As SVG
                  </a>
                </div>
              )}
            </Rows>
            <Rows
              title="Tried so far"
              aside={
                <Link to="/logbook" className="rows-link">
                  Logbook
                </Link>
              }
            >
              {view.tried.length === 0 && <p className="card-note">Nothing yet.</p>}
              {view.tried.map((own) => (
                <div
                  key={own.id}
                  className={`tried tried-${own.outcome}${
                    view.contradiction.includes(own.id) ? ' is-wrong' : ''
                  }`}
                >
                  <span className="figure">{own.text}</span>
                  <span>{view.outcomes.find(({ outcome }) => outcome === own.outcome)?.text}</span>
                  <Button
                    size="sm"
                    variant="link"
                    aria-label={`Take back ${own.text}`}
                    onClick={() => void attempt(() => api.unlog(own.id))}
                  >
                    Take back
                  </Button>
                </div>
              ))}
            </Rows>
          </>
        )}
      </SpecCard>
    </main>
  );
}
