/** Form: the structure's figures and its flat. */
import { useState } from 'react';

import { withChanges, withField } from '../api/fields';
import { useMeta } from '../api/queries';
import type { Basis, Figure } from '../api/generated/types';
import { Dimensions } from '../board/Dimensions';
import { FlatBoard } from '../board/FlatBoard';
import { PanelNames } from '../board/FlatDrawing';
import { ChoiceField } from '../card/ChoiceField';
import { FigureField } from '../card/FigureField';
import { Result, Rows, SpecCard } from '../card/SpecCard';
import { Switch } from '../card/Switch';
import { errorsOf, type StageProps } from '../job/StageProps';
import { named } from '../sheet/records';
import { Sketch } from './Sketch';

const PADDING = { left: 130, top: 52, right: 44, bottom: 100 };

const BASES: { value: Basis; label: string }[] = [
  { value: 'inside', label: 'inside' },
  { value: 'outside', label: 'outside' },
  { value: 'crease', label: 'crease' },
];

const isSize = (figure: Figure) => figure.standard === null;

export function FormStage(props: StageProps) {
  const { session, preview, workshop, unit, notice } = props;
  const [inHand, setInHand] = useState<string | null>(null);
  const units = useMeta().data?.units ?? [];
  const { job } = session;
  const { flat } = preview;
  const [width, height] = flat.size;
  const box = { x: 0, y: 0, width, height };
  const stock = workshop.stocks[job.stock];
  const note = flat.figures.find((figure) => figure.field === inHand);

  // The same piece measured another way: core says what its sizes are then.
  const measure = (basis: Basis) => {
    const [length, across, deep] = flat.sizes[basis];
    void session.keep((now) =>
      withChanges(now, [
        { field: 'form.basis', value: basis },
        { field: 'form.length', value: length },
        { field: 'form.width', value: across },
        { field: 'form.height', value: deep },
      ]),
    );
  };
  const row = (figure: Figure) => (
    <FigureField
      key={figure.field}
      figure={figure}
      session={session}
      unit={unit}
      onFocus={(isFocused) => setInHand(isFocused ? figure.field : null)}
    />
  );
  const others = BASES.map(({ value, label }, index) => ({
    value,
    label: label === 'crease' ? 'Creases' : label === 'inside' ? 'Inside' : 'Outside',
    text: flat.sizes_text[[0, 2, 1][index] ?? 0] ?? '',
  })).filter(({ value }) => value !== job.form.basis);

  return (
    <main className="stage">
      <FlatBoard
        stage={props}
        label={`Flat of ${job.name}, ${flat.size_text}`}
        padding={PADDING}
        art={null}
        overlay={(view) => (
          <>
            <PanelNames flat={flat} view={view} />
            <Dimensions dimensions={flat.dimensions} box={box} view={view} field={inHand} />
          </>
        )}
      >
        <ul className="legend" aria-label="Lines">
          <li>
            <svg viewBox="0 0 34 6" aria-hidden="true">
              <path className="line cut" d="M0 3H34" />
            </svg>
            cut
          </li>
          <li>
            <svg viewBox="0 0 34 6" aria-hidden="true">
              <path className="line crease" d="M0 3H34" />
            </svg>
            crease
          </li>
          <li>
            <svg viewBox="0 0 34 10" aria-hidden="true">
              <rect width="34" height="10" fill="url(#glue)" />
            </svg>
            glue
          </li>
        </ul>
      </FlatBoard>
      <SpecCard
        title="Straight-tuck carton"
        subtitle={stock ? `${stock.name}, ${stock.caliper} mm` : job.stock}
        notice={notice}
      >
        <Rows
          title="Size"
          aside={
            <Switch label="Measured" value={job.form.basis} choices={BASES} onChoose={measure} />
          }
        >
          {flat.figures.filter(isSize).map(row)}
          {others.map(({ value, label, text }) => (
            <Result key={value} label={label} value={text} />
          ))}
        </Rows>
        <Rows title="Flaps">{flat.figures.filter((figure) => !isSize(figure)).map(row)}</Rows>
        {note && <Sketch figure={note} />}
        <Rows title="Card">
          <ChoiceField
            label="Stock"
            value={job.stock}
            choices={named(workshop.stocks)}
            errors={errorsOf(session, 'stock')}
            onChoose={(value) => void session.keep((now) => withField(now, 'stock', value))}
          />
          <ChoiceField
            label="Unit"
            value={job.unit}
            choices={units.map((known) => ({ value: known.unit, label: known.unit }))}
            onChoose={(value) => void session.keep((now) => withField(now, 'unit', value))}
          />
          <Result label="Blank" value={flat.size_text} />
          <Result label="Card in a piece" value={flat.area_text} />
          <Result label="Holds" value={flat.volume_text} />
        </Rows>
      </SpecCard>
    </main>
  );
}
