/** Tooling: what each line is worked with, in which order, along which path, and how long that takes. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';

import { api } from '../api/client';
import { set } from '../api/fields';
import type { Tooling } from '../api/generated/types';
import { useMeta } from '../api/queries';
import { partsOf, SheetDrawing } from '../board/SheetDrawing';
import { FigureField } from '../card/FigureField';
import { Result, Rows, SpecCard } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import type { StageProps } from '../job/StageProps';
import { SheetList } from '../sheet/SheetList';
import { token } from '../style/token';
import { OperationRows } from './OperationRows';
import { PathDrawing } from './PathDrawing';
import { Timeline } from './Timeline';
import './tooling.css';
import { usePlaying } from './usePlaying';

export function ToolingStage({ session, preview, workshop, unit, notice }: StageProps) {
  const starts = useMeta().data?.starts;
  const [picked, setPicked] = useState(0);
  const [chosen, setChosen] = useState<number | null>(null);
  const { sheet } = preview;
  const parts = partsOf(preview);
  const { job } = session;
  const run = Math.min(picked, Math.max(0, sheet.layout.runs.length - 1));
  const tooling: Tooling = job.tooling ?? {};
  const cutter = job.sheet.cutter ? workshop.cutters[job.sheet.cutter] : undefined;
  const path = useQuery({
    queryKey: ['tooling', preview.sheetKey, run, tooling, cutter],
    queryFn: ({ signal }) => api.tooling({ job: session.latest(), run }, signal),
    enabled: sheet.layout.laid > 0 && session.isCurrent,
    placeholderData: (before) => before,
    gcTime: 60_000,
  });
  const playing = usePlaying(path.data?.seconds ?? 0);
  const [width, height] = sheet.page;
  const keep = (next: Tooling) => void session.keep(set('tooling', next));
  const view = path.data;
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
          {view && <PathDrawing view={view} now={playing.now} chosen={chosen} />}
        </svg>
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
        subtitle={cutter ? `a sheet on ${cutter.name}` : 'No cutter: lines are cut by hand'}
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
            {...{ view, tooling, chosen }}
            onChoose={setChosen}
            onKeep={keep}
            session={session}
            unit={unit}
          />
        )}
        <Rows title="Holding">
          <SwitchField
            label="Nicks in outlines"
            value={tooling.nicks ? 'nicks' : 'none'}
            choices={[
              { value: 'none', label: 'none' },
              { value: 'nicks', label: 'uncut places' },
            ]}
            onChoose={(how) =>
              keep({ ...tooling, nicks: how === 'nicks' ? (starts?.nicks ?? null) : null })
            }
          />
          {tooling.nicks && (
            <>
              <FigureField
                figure={{
                  field: 'tooling.nicks.width',
                  label: 'Width',
                  value: tooling.nicks.width,
                }}
                session={session}
                unit={unit}
              />
              <FigureField
                figure={{
                  field: 'tooling.nicks.count',
                  label: 'In each outline',
                  value: tooling.nicks.count,
                  text: String(tooling.nicks.count),
                }}
                measured="count"
                session={session}
                unit={unit}
              />
            </>
          )}
        </Rows>
        {view && (
          <Rows title="The path">
            <Result label="Tools down" value={view.length_text} />
            <Result label="Tools up" value={view.travel_text} />
            {view.left_out_text && (
              <Result label="Asked for twice, cut once" value={view.left_out_text} />
            )}
            {cutter && (
              <Result
                label="Blade offset"
                value={
                  cutter.knife.allowed_by === 'aptum' ? 'allowed for here' : 'left to the machine'
                }
              />
            )}
          </Rows>
        )}
      </SpecCard>
    </main>
  );
}
