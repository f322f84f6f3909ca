/** Sheet: copies on stock, inside what printer, cutter and marks leave. */
import { useState } from 'react';

import { withChanges, withField } from '../api/fields';
import { useMeta } from '../api/queries';
import type { Orientation, SheetSize, TakenBy } from '../api/generated/types';
import { Board } from '../board/Board';
import { SheetDrawing } from '../board/SheetDrawing';
import { ChoiceField } from '../card/ChoiceField';
import { CountField } from '../card/CountField';
import { FigureField } from '../card/FigureField';
import { Result, Rows, SpecCard } from '../card/SpecCard';
import { Switch } from '../card/Switch';
import { errorsOf, type StageProps } from '../job/StageProps';
import { named, namedOr } from './records';
import { SheetList } from './SheetList';
import { OwnSize } from './OwnSize';
import { WindowLegend } from './WindowLegend';

const PADDING = { left: 48, top: 44, right: 210, bottom: 22 };
const OWN = 'own size';

export function SheetStage(props: StageProps) {
  const { session, preview, workshop, unit, chosen, notice } = props;
  const [hovered, setHovered] = useState<string | null>(null);
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [picked, setPicked] = useState(0);
  const meta = useMeta().data;
  const { job } = session;
  const { sheet, flat } = preview;
  const plan = job.sheet;
  const run = Math.min(picked, Math.max(0, sheet.layout.runs.length - 1));
  const stock = workshop.stocks[job.stock];
  // Sheets of a backing layer are of its own card.
  const card = workshop.stocks[sheet.layout.runs[run]?.stock ?? job.stock];
  const cutter = plan.cutter ? workshop.cutters[plan.cutter] : undefined;
  const place = chosen?.place?.drawing === 'sheet' ? chosen.place.path : null;
  const byMarks = cutter?.finds.by === 'eye' || cutter?.finds.by === 'crosshairs';

  const sizes = sizesOf(stock?.sheets ?? [], meta?.sheet_sizes ?? []);
  const size = sizes.find((known) => same(known, plan.size));
  const set = (field: string, value: unknown) =>
    void session.keep((now) => withField(now, field, value === '' ? null : value));
  const [width, height] = sheet.page;

  return (
    <main className="stage">
      <div className={`board-wrap${session.isCurrent ? '' : ' is-stale'}`}>
        <Board
          label={`Sheet of ${job.name}, ${sheet.page_text}`}
          box={{ x: 0, y: 0, width, height }}
          padding={PADDING}
          unit={unit}
          hint={hovered}
          drawing={
            <SheetDrawing
              flat={flat}
              sheet={sheet}
              run={run}
              colour={card?.colour ?? '#ffffff'}
              shown="all"
              hidden={hidden}
              onHover={setHovered}
              place={place}
            />
          }
        >
          <WindowLegend
            taken={new Set<TakenBy>(sheet.taken.map((taken) => taken.by))}
            hidden={hidden}
            onToggle={(what) => {
              const next = new Set(hidden);
              if (!next.delete(what)) next.add(what);
              setHidden(next);
            }}
          />
          <SheetList
            sheet={sheet}
            flat={flat}
            stocks={workshop.stocks}
            picked={run}
            onPick={setPicked}
          />
          {sheet.layout.laid === 0 && (
            <p className="stale-note misfit-note">
              No copy fits. The fit strip says why and what would help.
            </p>
          )}
        </Board>
      </div>
      <SpecCard
        title={
          sheet.sheets > 0
            ? `${sheet.sheets} ${sheet.sheets === 1 ? 'sheet' : 'sheets'}`
            : 'No sheet yet'
        }
        subtitle={`${plan.size.name} ${plan.orientation}, ${sheet.page_text}`}
        notice={notice}
      >
        <Rows title="Stock">
          <ChoiceField
            label="Card"
            value={job.stock}
            choices={named(workshop.stocks)}
            onChoose={(value) => set('stock', value)}
          />
          <ChoiceField
            label="Sheet"
            value={size?.name ?? OWN}
            choices={[
              ...sizes.map(({ name }) => ({ value: name, label: name })),
              { value: OWN, label: OWN },
            ]}
            onChoose={(name) => {
              const found = sizes.find((known) => known.name === name) ?? {
                ...plan.size,
                name: OWN,
              };
              const nudge = name === OWN && size ? { width: plan.size.width + 1 } : {};
              set('sheet.size', { ...found, ...nudge });
            }}
          />
          {!size && <OwnSize session={session} unit={unit} pageSize={plan.size} />}
          <div className="row-field">
            <span>Lies</span>
            <Switch<Orientation>
              label="Orientation"
              value={plan.orientation}
              choices={[
                { value: 'portrait', label: 'upright' },
                { value: 'landscape', label: 'on its side' },
              ]}
              onChoose={(value) => set('sheet.orientation', value)}
            />
          </div>
        </Rows>
        <Rows title="Machines">
          {job.face && (
            <ChoiceField
              label="Printer"
              value={plan.printer ?? ''}
              choices={namedOr('whole page prints', workshop.printers)}
              errors={errorsOf(session, 'sheet.printer')}
              onChoose={(value) => set('sheet.printer', value)}
            />
          )}
          <ChoiceField
            label="Cutter"
            value={plan.cutter ?? ''}
            choices={namedOr('by hand', workshop.cutters)}
            errors={errorsOf(session, 'sheet.cutter')}
            onChoose={(value) => set('sheet.cutter', value)}
          />
          {job.face && byMarks && (
            <ChoiceField
              label="Marks"
              value={plan.marks ?? ''}
              choices={namedOr('none', workshop.mark_sets)}
              errors={errorsOf(session, 'sheet.marks')}
              onChoose={(value) => set('sheet.marks', value)}
            />
          )}
          {!job.face && <p className="card-note">Only cut: no printer and no marks.</p>}
        </Rows>
        <Rows title="Copies">
          <CountField
            label="Wanted"
            value={plan.copies}
            errors={errorsOf(session, 'sheet.copies')}
            onTry={(count) => session.propose((now) => withField(now, 'sheet.copies', count))}
            onKeep={() => session.keep()}
            onApply={(error) => void session.keep((now) => withChanges(now, error.remedy.changes))}
          />
          <FigureField
            figure={{
              field: 'sheet.spacing',
              label: 'Between pieces',
              note: 'Least distance between the cuts of neighbours.',
              value: plan.spacing,
              text: preview.spacing_text,
            }}
            session={session}
            unit={unit}
          />
          <ChoiceField
            label="Turning"
            value={plan.turning}
            choices={[
              { value: 'quarter', label: 'quarter turns' },
              { value: 'grain', label: 'along the grain' },
              { value: 'upright', label: 'not at all' },
            ]}
            onChoose={(value) => set('sheet.turning', value)}
          />
          <Result label="On a full sheet" value={String(sheet.layout.per_sheet)} />
          <Result label="Yield" value={sheet.yield_text} />
          <Result label="Waste" value={sheet.waste_text} />
        </Rows>
      </SpecCard>
    </main>
  );
}

const same = (a: SheetSize, b: SheetSize) =>
  Math.abs(a.width - b.width) < 0.01 && Math.abs(a.height - b.height) < 0.01;

/** The stock's own sizes first, then the others that everyone has a name for. */
function sizesOf(kept: SheetSize[], known: SheetSize[]): SheetSize[] {
  return [...kept, ...known.filter((size) => !kept.some((own) => same(own, size)))];
}
