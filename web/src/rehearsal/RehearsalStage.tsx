/** Rehearsal: one sheet through a printer and a cutter that err as real ones do, before a real one is spent. */
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';

import { api, Failure } from '../api/client';
import { useMeta } from '../api/queries';
import type { Day, Loading, RehearsalView } from '../api/generated/types';
import { ChoiceField } from '../card/ChoiceField';
import { Result, Rows, SpecCard } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import type { StageProps } from '../job/StageProps';
import { CutOverPrint } from './CutOverPrint';
import { LoadingRows } from './LoadingRows';
import { OddsRows } from './OddsRows';
import { SheetOut } from './SheetOut';
import './rehearsal.css';

export const STRAIGHT: Loading = {
  shift: [0, 0],
  turn: 0,
  is_turned_round: false,
  start: [0, 0],
};

export function RehearsalStage({
  id,
  session,
  preview,
  workshop,
  unit,
  notice,
  onMore,
}: StageProps) {
  const [day, setDay] = useState<Day>('usual');
  const [seed, setSeed] = useState(1);
  const [loading, setLoading] = useState<Loading>(STRAIGHT);
  const [sheet, setSheet] = useState(1);
  const [times, setTimes] = useState('50');
  const { days = [], printer_ppi: offered = [] } = useMeta().data ?? {};
  const [chosenPpi, setPpi] = useState<number | null>(null);
  const ppi = chosenPpi ?? offered[0] ?? 0;
  const { job } = session;
  const { sheets } = preview.sheet;
  const number = Math.min(sheet, Math.max(1, sheets));
  const cutter = job.sheet.cutter ? workshop.cutters[job.sheet.cutter] : undefined;
  const tried = useQuery({
    queryKey: ['rehearsal', preview.sheetKey, job.tooling, cutter, day, seed, loading, number, ppi],
    queryFn: ({ signal }) =>
      api.rehearse({ job: session.latest(), sheet: number, day, seed, loading, ppi }, signal),
    enabled: preview.sheet.layout.laid > 0 && session.isCurrent,
    placeholderData: (before) => before,
    retry: false,
    gcTime: 60_000,
  });
  const view = tried.error ? undefined : tried.data;
  const checks = view?.checks;
  useEffect(() => {
    onMore(checks ?? []);
    return () => onMore([]);
  }, [checks, onMore]);
  const name = days.find((known) => known.day === day)?.name ?? day;
  const trouble = tried.error instanceof Failure ? tried.error.message : null;
  return (
    <main className="stage">
      <div className={`board-wrap rehearsal-desk${tried.isFetching ? ' is-stale' : ''}`}>
        <figure>
          <figcaption>
            <h2>Out of the printer</h2>
            <span>
              {name}, sheet <span className="figure">{number}</span>, seed{' '}
              <span className="figure">{seed}</span>
            </span>
          </figcaption>
          {view && <SheetOut view={view} />}
        </figure>
        <figure>
          <figcaption>
            <h2>Cut over print</h2>
            <span>
              errors × <span className="figure">{times}</span>
            </span>
          </figcaption>
          {view && <CutOverPrint {...{ view, preview }} times={Number(times)} />}
        </figure>
        {view && <Legend view={view} />}
        {!view && (
          <p className="rehearsal-empty" role="status">
            {preview.sheet.layout.laid === 0
              ? 'No copy fits, so there is nothing to rehearse yet. The fit strip says what would help.'
              : (trouble ?? 'The sheet is being printed and cut …')}
          </p>
        )}
      </div>
      <SpecCard
        title={view?.title ?? 'Rehearsal'}
        subtitle={view?.words ?? trouble ?? 'A sheet is printed and cut as machines really do it.'}
        notice={notice}
        action={
          <Button
            size="sm"
            variant="primary"
            disabled={tried.isFetching}
            onClick={() => setSeed((now) => now + 1)}
          >
            {tried.isFetching ? 'Working …' : 'Another sheet'}
          </Button>
        }
      >
        {view?.advice && <p className={`card-note is-${view.state}`}>{view.advice}.</p>}
        <Rows title="What happens to it" page="rehearsal">
          <ChoiceField
            label="The printer does"
            value={day}
            choices={days.map((known) => ({ value: known.day, label: known.name }))}
            onChoose={(value) => {
              const known = days.find((own) => own.day === value);
              if (known) setDay(known.day);
            }}
          />
          {sheets > 1 && (
            <ChoiceField
              label="Sheet"
              value={String(number)}
              choices={Array.from({ length: Math.min(sheets, 200) }, (_, at) => ({
                value: String(at + 1),
                label: `${at + 1} of ${sheets}`,
              }))}
              onChoose={(value) => setSheet(Number(value))}
            />
          )}
          <SwitchField
            label="It prints"
            value={String(ppi)}
            choices={offered.map((own) => ({ value: String(own), label: `${own} ppi` }))}
            onChoose={(value) => setPpi(Number(value))}
          />
          <SwitchField
            label="Errors are drawn"
            value={times}
            choices={[
              { value: '1', label: 'true' },
              { value: '50', label: '× 50' },
            ]}
            onChoose={setTimes}
          />
        </Rows>
        <OddsRows {...{ session, preview, day, seed }} sheet={number} />
        {view && view.rows.length > 0 && (
          <Rows
            title="This sheet lay"
            page="marks"
            aside={<span className="rows-aside">as solved / as it was</span>}
          >
            {view.rows.map(({ label, text }) => (
              <Result key={label} label={label} value={text} />
            ))}
          </Rows>
        )}
        {view && view.pieces.length > 1 && (
          <Rows
            title="Piece by piece"
            aside={<span className="rows-aside">worst / half within</span>}
          >
            {view.pieces.map((piece) => (
              <Result
                key={piece.name}
                label={`${piece.name}${piece.white_text ? `, white along ${piece.white_text}` : ''}`}
                value={`${piece.worst_text} / ${piece.typical_text}`}
              />
            ))}
          </Rows>
        )}
        <LoadingRows {...{ loading, unit }} onKeep={setLoading} />
        <p className="card-note">
          <Link className="btn btn-sm btn-outline-primary" to={`/jobs/${id}/run`}>
            On to Run, and print
          </Link>
        </p>
      </SpecCard>
    </main>
  );
}

/** What the hairs mean, by their stroke as well as their colour. */
function Legend({ view }: { view: RehearsalView }) {
  const count = (state: string) => view.hairs.filter((hair) => hair.state === state).length;
  const said = { fits: 'within half of it', attention: 'within it', broken: 'white, or past it' };
  return (
    <ul className="hair-legend" aria-label="Errors">
      {(['fits', 'attention', 'broken'] as const).map((state) => (
        <li key={state}>
          <svg viewBox="0 0 24 8" aria-hidden="true">
            <path className={`hair is-${state}`} d="M1 4H23" />
          </svg>
          {said[state]} <span className="figure">{count(state)}</span>
        </li>
      ))}
    </ul>
  );
}
