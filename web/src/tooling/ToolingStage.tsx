/** Tooling: what each line is worked with, in which order, along which path, and how long that takes. */
import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { Link } from 'react-router';

import { api } from '../api/client';
import type { FieldChange, Tooling } from '../api/generated/types';
import { partsOf, SheetDrawing } from '../board/SheetDrawing';
import { Result, Rows, SpecCard } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import type { StageProps } from '../job/StageProps';
import { SheetList } from '../sheet/SheetList';
import { token } from '../style/token';
import { HoldingRows } from './HoldingRows';
import { OperationRows } from './OperationRows';
import { PathDrawing } from './PathDrawing';
import { TestCut } from './TestCut';
import { Timeline } from './Timeline';
import './tooling.css';
import { usePlaying } from './usePlaying';

export function ToolingStage(props: StageProps) {
  const { id, session, preview, workshop, unit, chosen: check, notice, onMore } = props;
  const [picked, setPicked] = useState(0);
  const [chosen, setChosen] = useState<string | null>(null);
  const [tested, setTested] = useState<string | null>(null);
  const [isReal, setReal] = useState(false);
  const [over, setOver] = useState<number | null>(null);
  const [held, setHeld] = useState<number | null>(null);
  const pointed = over ?? held;
  const { sheet } = preview;
  const parts = partsOf(preview);
  const { job } = session;
  const run = Math.min(picked, Math.max(0, sheet.layout.runs.length - 1));
  const tooling: Tooling = job.tooling ?? {};
  const cutter = job.sheet.cutter ? workshop.cutters[job.sheet.cutter] : undefined;
  const path = useQuery({
    queryKey: ['tooling', preview.sheetKey, run, tooling, cutter, workshop.recipes],
    queryFn: ({ signal }) => api.tooling({ job: session.latest(), run }, signal),
    enabled: sheet.layout.laid > 0 && session.isCurrent,
    placeholderData: (before) => before,
    gcTime: 60_000,
  });
  const view = path.data;
  const checks = view?.checks;
  useEffect(() => {
    onMore(checks ?? []);
    return () => onMore([]);
  }, [checks, onMore]);
  const playing = usePlaying(view?.seconds ?? 0);
  const [width, height] = sheet.page;
  const keep = (...changes: FieldChange[]) => void session.keep(...changes);
  const stretch = pointed === null ? undefined : view?.stretches[pointed];
  const operation = stretch && view?.operations[stretch.operation];
  const pick = useCallback(
    (at: number) => {
      const own = view?.stretches[at];
      if (own) setChosen(view.operations[own.operation]?.id ?? null);
      setHeld(at);
    },
    [view],
  );
  if (tested !== null) {
    return (
      <TestCut
        {...{ id, session, preview, workshop, run }}
        operation={tested}
        onClose={() => setTested(null)}
      />
    );
  }
  const place = check?.place?.drawing === 'sheet' ? check.place.path : null;
  return (
    <main className="stage">
      <div className={`board-wrap tooling-desk${session.isCurrent ? '' : ' is-stale'}`}>
        <svg
          className="tooling-board"
          viewBox={`-4 -4 ${width + 8} ${height + 8}`}
          role="img"
          aria-label="The path of the tools on the sheet"
        >
          <SheetDrawing
            {...{ parts, sheet, run }}
            colour={token('card-bare')}
            shown="cut"
            lines={[]}
          />
          {view && (
            <PathDrawing
              {...{ view, isReal, pointed }}
              chosen={view.operations.findIndex((own) => own.id === chosen)}
              now={playing.now}
              onPoint={setOver}
              onPick={pick}
            />
          )}
          {place && <path className="place" d={place} />}
        </svg>
        <p className="pointed-line" role="status">
          {stretch && operation
            ? `${operation.name} ${countOf(view.stretches, pointed ?? 0)}, ${stretch.length_text}, ` +
              `${stretch.takes.toFixed(1)} s`
            : ' '}
          {stretch?.piece && (
            <Link to={`/jobs/${id}/form?piece=${stretch.piece}`}>
              {nameOf(preview, stretch.piece)}: {stretch.stroke}
            </Link>
          )}
        </p>
        {view && view.seconds !== null && view.stretches.length > 0 && (
          <Timeline view={view} playing={playing} />
        )}
        <SheetList
          sheet={sheet}
          parts={parts}
          stocks={workshop.stocks}
          picked={run}
          onPick={setPicked}
        />
      </div>
      <SpecCard
        title={view ? view.time_text : 'Tooling'}
        subtitle={
          cutter
            ? [
                `a sheet on ${cutter.name}`,
                view?.order_text,
                view?.print_text && `${view.print_text} of printing before`,
              ]
                .filter(Boolean)
                .join(', ')
            : 'No cutter: lines are cut by hand'
        }
        notice={notice}
      >
        {path.error && <p className="card-note">{path.error.message}</p>}
        {sheet.layout.laid === 0 && (
          <p className="card-note">
            No copy fits, so there is nothing to cut yet. The fit strip says what would help.
          </p>
        )}
        {view && cutter && (
          <OperationRows
            {...{ view, tooling, chosen, session, unit }}
            forceUnit={cutter.force_unit}
            onChoose={setChosen}
            onKeep={keep}
            onTest={setTested}
          />
        )}
        <HoldingRows {...{ tooling, session, unit }} copies={view?.copies ?? []} onKeep={keep} />
        {view && (
          <Rows title="The path">
            <Result label="Tools down" value={view.length_text} />
            <Result label="Tools up" value={view.travel_text} />
            {view.left_out_text && (
              <Result label="Asked for twice, cut once" value={view.left_out_text} />
            )}
            {cutter && (
              <>
                <Result
                  label="Blade offset"
                  value={
                    cutter.knife.allowed_by === 'aptum' ? 'allowed for here' : 'left to the machine'
                  }
                />
                <SwitchField
                  label="Where the tip runs"
                  value={isReal ? 'real' : 'asked'}
                  choices={[
                    { value: 'asked', label: 'hidden' },
                    { value: 'real', label: 'drawn' },
                  ]}
                  onChoose={(how) => setReal(how === 'real')}
                />
              </>
            )}
          </Rows>
        )}
      </SpecCard>
    </main>
  );
}

/** Such as “7 of 11”. */
function countOf(all: { operation: number; pass: number }[], at: number): string {
  const own = all[at];
  const same = (other: { operation: number; pass: number }) =>
    other.operation === own?.operation && other.pass === own.pass;
  const before = all.slice(0, at + 1).filter(same).length;
  return `${before} of ${all.filter(same).length}`;
}

const nameOf = (preview: StageProps['preview'], piece: string) =>
  preview.pieces.find(({ id }) => id === piece)?.name ?? piece;
