/** How the layout is made: rows and columns, nested, or by hand. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { Amount, Turning, UnitInfo } from '../api/generated/types';
import type { Preview } from '../api/views';
import { ChoiceField } from '../card/ChoiceField';
import { FigureField } from '../card/FigureField';
import { CountField } from '../card/CountField';
import { Rows } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { errorsOf } from '../job/StageProps';
import type { JobSession } from '../job/useJobSession';
import type { Nesting } from './useNesting';

const TURNINGS: { value: Turning; label: string }[] = [
  { value: 'free', label: 'by any angle' },
  { value: 'quarter', label: 'by quarter turns' },
  { value: 'grain', label: 'only along the grain' },
  { value: 'upright', label: 'not at all' },
];

interface Props {
  session: JobSession;
  preview: Preview;
  unit: UnitInfo;
  nesting: Nesting;
  /** True where the card comes from a roll. */
  isRoll: boolean;
}

export function LayRows({ session, preview, unit, nesting, isRoll }: Props) {
  const [isOpen, setOpen] = useState(false);
  const plan = session.job.sheet;
  const made = plan.kept ? plan.kept.made : 'rows';
  const keep = (field: string, value: unknown) => void session.keep(set(field, value));
  const count = (field: string, label: string, value: number) => (
    <CountField
      label={label}
      value={value}
      errors={errorsOf(session, field)}
      onTry={(next) => session.propose(set(field, next))}
      onKeep={() => session.keep()}
      onApply={(error) => void session.keep(...error.remedy.changes)}
    />
  );
  const distances = [
    {
      field: 'sheet.spacing',
      label: 'Between pieces',
      note: 'Least distance between the cuts of neighbours.',
      value: plan.spacing,
      text: preview.spacing_text,
    },
    {
      field: 'sheet.to_marks',
      label: 'To the marks',
      note: 'Least distance from a cut to what the marks keep clear.',
      value: plan.to_marks,
      text: preview.to_marks_text,
    },
  ];
  return (
    <Rows
      title="Lay out"
      page="nesting"
      aside={
        <span className="lay-made">
          {made === 'rows' ? 'rows and columns' : made === 'nested' ? 'nested' : 'by hand'}
        </span>
      }
    >
      <div className="lay-buttons">
        <Button
          size="sm"
          variant="outline-primary"
          disabled={made === 'rows' || nesting.isRunning}
          onClick={() => keep('sheet.kept', null)}
        >
          Rows and columns
        </Button>
        {/* One button, so that it keeps the focus when what it does changes. */}
        <Button size="sm" onClick={nesting.isRunning ? nesting.stop : nesting.start}>
          {nesting.isRunning ? 'Stop, keep the best' : 'Nest'}
        </Button>
      </div>
      {nesting.isRunning && (
        <div className="nest-progress" role="status">
          <progress max={1} value={nesting.progress?.done ?? 0} aria-label="Work done" />
          <span>
            {nesting.progress
              ? `${nesting.progress.text}, ${nesting.progress.seconds.toFixed(1)} s`
              : 'looking for a first layout …'}
          </span>
        </div>
      )}
      {nesting.trouble && (
        <p className="lay-note lay-trouble" role="alert">
          {nesting.trouble}
        </p>
      )}
      {nesting.outcome && !nesting.isRunning && (
        <p className="lay-note" role="status">
          {nesting.outcome}{' '}
          {nesting.offered && (
            <Button size="sm" variant="outline-primary" onClick={nesting.take}>
              Take this layout
            </Button>
          )}
        </p>
      )}
      {distances.map((figure) => (
        <FigureField key={figure.field} figure={figure} session={session} unit={unit} />
      ))}
      {isRoll && count('sheet.in_a_row', 'Sheets of the roll in a row', plan.in_a_row ?? 1)}
      <ChoiceField
        label="Turned"
        value={plan.turning}
        choices={TURNINGS}
        onChoose={(value) => keep('sheet.turning', value)}
      />
      <SwitchField<Amount>
        name="Lay"
        label="How many"
        value={plan.amount}
        choices={[
          { value: 'wanted', label: 'as wanted' },
          { value: 'fill-sheets', label: 'fill the sheets' },
        ]}
        onChoose={(value) => keep('sheet.amount', value)}
      />
      <Button
        variant="plain"
        className="lay-more"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        Time and seed of the search
      </Button>
      {isOpen && count('sheet.search.budget', 'Seconds at most', plan.search.budget)}
      {isOpen && count('sheet.search.seed', 'Seed', plan.search.seed)}
    </Rows>
  );
}
