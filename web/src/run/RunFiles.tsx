/** What will be printed, what will be cut, and both as downloads. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';

import { api } from '../api/client';
import { useMeta } from '../api/queries';
import type { FileInfo } from '../api/generated/types';
import { partsOf, SheetDrawing } from '../board/SheetDrawing';
import { Result, Rows, SpecCard } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import type { StageProps } from '../job/StageProps';
import { token } from '../style/token';
import { SheetList } from '../sheet/SheetList';
import { ReturnedRows } from './ReturnedRows';
import type { Running } from './useRun';

interface Props extends StageProps {
  run: Running;
  /** Leads back to the steps, where something was printed. */
  onSteps: (() => void) | null;
}

export function RunFiles(props: Props) {
  const { id, session, preview, workshop, notice, run: running, onSteps } = props;
  const [picked, setPicked] = useState(0);
  const [withMarks, setWithMarks] = useState(false);
  // Asked again for every state of the job.
  const files = useQuery({
    queryKey: ['files', id, preview.code, session.job.name],
    queryFn: () => api.files(id),
    enabled: session.saving === 'saved',
  });
  const listed = files.data ?? [];
  const offered = useMeta().data;
  const [chosenPpi, setPpi] = useState<string | null>(null);
  const ppi = chosenPpi ?? String(offered?.usual_ppi);
  const [units, setUnits] = useState('mm');
  const { sheet, is_printed: isPrinted } = preview;
  const parts = partsOf(preview);
  const { job } = session;
  const run = Math.min(picked, Math.max(0, sheet.layout.runs.length - 1));
  // Cut as it is decided for the files: shared edges once, perforations as their cuts.
  const plan = useQuery({
    queryKey: ['plan', preview.sheetKey, run],
    queryFn: ({ signal }) => api.plan(session.latest(), run, signal),
    enabled: sheet.layout.laid > 0,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  const [width, height] = sheet.page;
  const frame = `-3 -3 ${width + 6} ${height + 6}`;
  const same = { parts, sheet, run, colour: token('card-bare') };
  const hasMarks = sheet.marks !== '';
  const hasBack = parts.some(({ behind }) => behind !== null);
  const printer = job.sheet.printer ? workshop.printers[job.sheet.printer] : undefined;
  return (
    <main className="stage">
      <div className={`board-wrap run-desk${session.isCurrent ? '' : ' is-stale'}`}>
        <div className="run-views">
          {isPrinted && (
            <figure className="run-view run-printed">
              <figcaption>
                Printed <span>by the printer</span>
              </figcaption>
              <svg
                viewBox={frame}
                role="img"
                aria-label="What will be printed: art and marks, no lines"
              >
                <SheetDrawing {...same} shown="printed" />
              </svg>
            </figure>
          )}
          {hasBack && (
            <figure className="run-view run-printed">
              <figcaption>
                Behind <span>turned, seen from behind</span>
              </figcaption>
              <svg viewBox={frame} role="img" aria-label="What will be printed on the back">
                <SheetDrawing {...same} shown="behind" />
              </svg>
            </figure>
          )}
          <figure className="run-view run-cut">
            <figcaption>
              Cut <span>by the {job.sheet.cutter ? 'cutter' : 'knife'}</span>
            </figcaption>
            <svg
              viewBox={frame}
              role="img"
              aria-label="What will be creased and cut: lines, no art and no marks"
            >
              <SheetDrawing {...same} shown="cut" lines={plan.data ?? []} />
            </svg>
          </figure>
        </div>
        <SheetList
          sheet={sheet}
          parts={parts}
          stocks={workshop.stocks}
          picked={run}
          onPick={setPicked}
        />
      </div>
      <SpecCard
        title={`Sheet code ${preview.code}`}
        subtitle={
          isPrinted
            ? sheet.notes.every((notes) => notes !== null)
              ? 'Printed on every sheet, so that sheet and cut can be matched'
              : 'Some sheets have no room for it: see Scale and code in the fit strip'
            : 'Named in every cut file, so that file and job can be matched'
        }
        notice={notice}
        action={
          onSteps ? (
            <Button size="sm" variant="outline-primary" onClick={onSteps}>
              The steps
            </Button>
          ) : (
            <Button
              size="sm"
              variant="primary"
              disabled={sheet.layout.laid === 0 || session.saving !== 'saved' || running.isBusy}
              onClick={() => running.freeze(session.version)}
            >
              {isPrinted ? 'Print these sheets' : 'Cut these sheets'}
            </Button>
          )
        }
      >
        {running.trouble && (
          <p className="card-note is-broken" role="alert">
            {running.trouble}
          </p>
        )}
        <Rows title="Files">
          {files.error && <p className="card-note">{files.error.message}</p>}
          <div className="files">
            {sheet.layout.laid === 0 && (
              <p className="card-note">
                No copy fits, so there is nothing to print or cut yet. The fit strip says what would
                help.
              </p>
            )}
            {sheet.layout.laid > 0 &&
              [...new Set(listed.map(({ purpose }) => purpose))].map((purpose) => (
                <section key={purpose} aria-label={purpose}>
                  <h4>{purpose}</h4>
                  <ul>
                    {listed
                      .filter((file) => file.purpose === purpose)
                      .map((file) => (
                        <Download
                          key={file.name}
                          id={id}
                          file={file}
                          withMarks={withMarks}
                          ppi={ppi}
                          units={units}
                        />
                      ))}
                  </ul>
                </section>
              ))}
            <section aria-label="The whole job">
              <h4>The whole job</h4>
              <ul>
                {sheet.layout.laid > 0 && (
                  <li>
                    <a
                      href={`/api/jobs/${id}/files.zip${withMarks ? '?marks=included' : ''}`}
                      download
                    >
                      All of them
                    </a>
                    <p>one zip, with the job’s archive</p>
                  </li>
                )}
                <li>
                  <a href={`/api/jobs/${id}/job.aptum`} download>
                    Job archive
                  </a>
                  <p>the job with its stock, machines and marks</p>
                </li>
              </ul>
            </section>
          </div>
          {offered && isPrinted && sheet.layout.laid > 0 && (
            <SwitchField
              name="PNG of a sheet, ppi"
              label="Pixels in an inch of the printed sheet as PNG"
              value={ppi}
              choices={offered.picture_ppi.map(String).map((value) => ({ value, label: value }))}
              onChoose={setPpi}
            />
          )}
          {offered && sheet.layout.laid > 0 && (
            <SwitchField
              name="Units of the cut SVG"
              label="Units of the cut SVG: mm, or so many to the inch where they are ignored"
              value={units}
              choices={['mm', ...offered.units_per_inch.map(String)].map((value) => ({
                value,
                label: value,
              }))}
              onChoose={setUnits}
            />
          )}
          {hasMarks && (
            <Form.Check
              id="with-marks"
              type="switch"
              label="Marks in the cut files"
              checked={withMarks}
              onChange={(event) => setWithMarks(event.target.checked)}
            />
          )}
          {withMarks && (
            <p className="card-note">
              In a group of their own. A program that does not know it will cut them.
            </p>
          )}
        </Rows>
        {hasMarks && <ReturnedRows id={id} session={session} />}
        <Rows title="Print at 100 %" page="print-true">
          <p className="card-note">
            Choose “actual size” in the print dialog; “fit to page” is the classic reason why a cut
            misses. Then measure the printed scale with a ruler.
          </p>
          {hasBack && (
            <p className="card-note">
              The back of each sheet follows it in the print file: choose two-sided, turned about
              the {printer?.turns_about === 'short-edge' ? 'shorter' : 'longer'} edge.
            </p>
          )}
          {sheet.notes[run]?.scale_text ? (
            <Result label="Scale on the sheet" value={sheet.notes[run].scale_text} />
          ) : (
            sheet.layout.laid > 0 && (
              <p className="card-note">
                This sheet has no room for a scale: measure a dimension of a piece instead.
              </p>
            )
          )}
          <Result label="Page" value={sheet.page_text} />
          <Result label="Sheets" value={String(sheet.sheets)} />
        </Rows>
      </SpecCard>
    </main>
  );
}

interface DownloadProps {
  id: number;
  file: FileInfo;
  withMarks: boolean;
  ppi: string;
  units: string;
}

function Download({ id, file, withMarks, ppi, units }: DownloadProps) {
  const [path, asked] = file.path.split('?');
  const told = new URLSearchParams(asked);
  if (file.path.startsWith('sheet-png/')) told.set('ppi', ppi);
  else if (file.sheets && withMarks) told.set('marks', 'included');
  if (file.path.startsWith('cut/') && units !== 'mm') told.set('units', units);
  const marks = told.size > 0 ? `?${told.toString()}` : '';
  const [first, last] = file.sheets ?? [null, null];
  const which = first === last ? `sheet ${first}` : `sheets ${first} to ${last}, all alike`;
  const lead = file.piece ?? (first === null ? null : which);
  return (
    <li>
      <a href={`/api/jobs/${id}/${path}${marks}`} download>
        {file.title}
      </a>
      {file.pages_text && <span className="figure">{file.pages_text}</span>}
      <p>
        {lead && `${lead}: `}
        {file.note}
      </p>
    </li>
  );
}
