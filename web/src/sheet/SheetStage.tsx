/** Sheet: copies on stock, inside what printer, cutter and marks leave. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';

import { set } from '../api/fields';
import { useMeta } from '../api/queries';
import type { Orientation, SheetSize } from '../api/generated/types';
import { firstCard } from '../job/pieces';
import { ChoiceField } from '../card/ChoiceField';
import { Rows, SpecCard } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { errorsOf, type StageProps } from '../job/StageProps';
import { HandTools } from './HandTools';
import { LayRows } from './LayRows';
import { MarksDialog } from './MarksDialog';
import { OrderRows } from './OrderRows';
import { OwnSize } from './OwnSize';
import { PieceRows } from './PieceRows';
import { named, namedOr } from './records';
import { SheetBoard } from './SheetBoard';
import { useHandLayout } from './useHandLayout';
import { useNesting } from './useNesting';
import { WaysPane } from './WaysPane';

const OWN = 'own size';

export function SheetStage(props: StageProps) {
  const { id, session, preview, workshop, unit, chosen, notice, onChanges } = props;
  const [picked, setPicked] = useState(0);
  const [open, setOpen] = useState<'ways' | 'marks' | null>(null);
  const meta = useMeta().data;
  const { job } = session;
  const { sheet } = preview;
  const plan = job.sheet;
  const run = Math.min(picked, Math.max(0, sheet.layout.runs.length - 1));
  const hand = useHandLayout(session, run);
  const nesting = useNesting(id, session);
  const card = firstCard(job);
  const stock = workshop.stocks[card];
  const cutter = plan.cutter ? workshop.cutters[plan.cutter] : undefined;
  const place = chosen?.place?.drawing === 'sheet' ? chosen.place.path : null;
  const byMarks = cutter?.finds.by === 'eye' || cutter?.finds.by === 'crosshairs';
  const isBroken = chosen?.state === 'broken' && chosen.stage === 'sheet';

  const sizes = sizesOf(stock?.sheets ?? [], meta?.sheet_sizes ?? []);
  const size = sizes.find((known) => same(known, plan.size));
  const keep = (field: string, value: unknown) =>
    void session.keep(set(field, value === '' ? null : value));

  const machine = (
    label: string,
    name: 'printer' | 'cutter' | 'carrier' | 'marks',
    none: string,
    records: Parameters<typeof namedOr>[1],
  ) => (
    <ChoiceField
      label={label}
      value={plan[name] ?? ''}
      choices={namedOr(none, records, plan[name])}
      errors={errorsOf(session, `sheet.${name}`)}
      onChoose={(value) => keep(`sheet.${name}`, value)}
    />
  );

  return (
    <main className="stage">
      <SheetBoard
        session={session}
        preview={nesting.progress ? withLayout(preview, nesting.progress.kept.runs) : preview}
        workshop={workshop}
        unit={unit}
        run={run}
        onRun={setPicked}
        hand={hand}
        place={place}
        onWays={() => setOpen('ways')}
      />
      <SpecCard
        title={
          sheet.sheets > 0
            ? `${sheet.sheets} ${sheet.sheets === 1 ? 'sheet' : 'sheets'}`
            : 'No sheet yet'
        }
        subtitle={`${plan.size.name} ${plan.orientation}, ${sheet.page_text}`}
        notice={
          notice && (
            <>
              {notice}
              {isBroken && (
                <Button variant="plain" className="all-ways" onClick={() => setOpen('ways')}>
                  All ways to fit, with drawings
                </Button>
              )}
            </>
          )
        }
      >
        <PieceRows id={id} session={session} preview={preview} />
        <LayRows
          session={session}
          preview={preview}
          unit={unit}
          nesting={nesting}
          isRoll={job.pieces.some(({ stock }) => workshop.stocks[stock]?.roll)}
        />
        <OrderRows job={job} preview={preview} workshop={workshop} onApply={onChanges} />
        <Rows title="Stock" page="caliper" aside={<Link to="/workshop/stocks">Workshop</Link>}>
          <ChoiceField
            label="Card"
            value={card}
            choices={named(workshop.stocks, card)}
            errors={errorsOf(session, session.at('stock'))}
            onChoose={(value) => keep(session.at('stock'), value)}
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
              keep('sheet.size', { ...found, ...nudge });
            }}
          />
          {!size && <OwnSize session={session} unit={unit} pageSize={plan.size} />}
          <SwitchField<Orientation>
            name="Lies"
            label="Orientation"
            value={plan.orientation}
            choices={[
              { value: 'portrait', label: 'upright' },
              { value: 'landscape', label: 'on its side' },
            ]}
            onChoose={(value) => keep('sheet.orientation', value)}
          />
        </Rows>
        <Rows title="Machines" page="window" aside={<Link to="/workshop/cutters">Workshop</Link>}>
          {preview.is_printed &&
            machine('Printer', 'printer', 'whole page prints', workshop.printers)}
          {machine('Cutter', 'cutter', 'by hand', workshop.cutters)}
          {plan.cutter && machine('Carrier', 'carrier', 'none', workshop.carriers)}
          {preview.is_printed && byMarks && (
            <>
              {machine('Marks', 'marks', 'none', workshop.mark_sets)}
              <Button variant="plain" className="lay-more" onClick={() => setOpen('marks')}>
                Compare marks, find the best
              </Button>
            </>
          )}
          {!preview.is_printed && <p className="card-note">Only cut: no printer and no marks.</p>}
        </Rows>
        {/* Over the card's foot: neither the sheet nor a row moves or is hidden while copies are handled. */}
        <div className="hand-dock">
          {hand.chosen.size > 0 && (
            <HandTools
              hand={hand}
              placements={sheet.layout.runs[run]?.placements ?? []}
              spacing={plan.spacing}
              unit={unit}
            />
          )}
        </div>
      </SpecCard>
      {open === 'ways' && (
        <WaysPane
          // Another window may change the job meanwhile: its ways are looked for afresh.
          key={JSON.stringify(job)}
          job={job}
          onApply={(changes) => {
            setOpen(null);
            onChanges(changes);
          }}
          onClose={() => setOpen(null)}
        />
      )}
      {open === 'marks' && (
        <MarksDialog
          job={job}
          onChoose={(marks) => {
            setOpen(null);
            keep('sheet.marks', marks);
          }}
          onClose={() => setOpen(null)}
        />
      )}
    </main>
  );
}

/** The preview with another layout on its sheets, while that is being looked for. */
function withLayout(
  preview: StageProps['preview'],
  runs: StageProps['preview']['sheet']['layout']['runs'],
) {
  const layout = { ...preview.sheet.layout, runs };
  return { ...preview, sheet: { ...preview.sheet, layout, notes: [], misfit: null } };
}

const same = (a: SheetSize, b: SheetSize) =>
  Math.abs(a.width - b.width) < 0.01 && Math.abs(a.height - b.height) < 0.01;

/** The stock's own sizes first, then the others that everyone has a name for. */
function sizesOf(kept: SheetSize[], known: SheetSize[]): SheetSize[] {
  return [...kept, ...known.filter((size) => !kept.some((own) => same(own, size)))];
}
