/** Fields of a record: each changes one part of it and shows what is wrong with that part. */
import type { InputError, Measured, Record as Entry, UnitInfo } from '../api/generated/types';
import { ChoiceField } from '../card/ChoiceField';
import { PlainLength } from '../card/PlainLength';
import { WordsField } from '../card/WordsField';
import type { RecordSession } from './useRecord';

/** What the fields of one record share. */
export interface Editing<R extends Entry> {
  session: RecordSession<R>;
  unit: UnitInfo;
}

const errorsAt = (errors: InputError[], field: string) =>
  errors.filter((error) => error.field === field);

interface NumberProps<R extends Entry> extends Editing<R> {
  field: string;
  label: string;
  note?: string;
  value: number;
  measured?: Measured;
  change: (record: R, value: number) => R;
}

export function NumberField<R extends Entry>(props: NumberProps<R>) {
  const { session, unit, field, label, note, value, measured, change } = props;
  const fix = (error: InputError) => {
    const next = error.remedy.changes[0]?.value;
    if (typeof next === 'number') session.keep(change(session.record, next));
  };
  return (
    <PlainLength
      label={label}
      {...(note ? { note } : {})}
      value={value}
      unit={unit}
      {...(measured ? { measured } : {})}
      errors={errorsAt(session.errors, field)}
      onTry={(next) => session.propose(change(session.record, next))}
      onKeep={(next) => session.keep(change(session.record, next))}
      onApply={fix}
    />
  );
}

/** The record's own figures, by their names. */
type FigureOf<R> = { [K in keyof R]: R[K] extends number ? K : never }[keyof R] & string;

type FigureProps<R extends Entry> = Omit<NumberProps<R>, 'field' | 'value' | 'change'> & {
  field: FigureOf<R>;
};

/** A figure that stands in the record itself. */
export function OwnFigure<R extends Entry>({ field, ...props }: FigureProps<R>) {
  return (
    <NumberField
      {...(props as Editing<R> & { label: string })}
      field={field}
      value={props.session.record[field] as number}
      change={(record, value) => ({ ...record, [field]: value })}
    />
  );
}

interface TextProps<R extends Entry> extends Pick<Editing<R>, 'session'> {
  field: string;
  label: string;
  value: string;
  change: (record: R, value: string) => R;
}

export function TextField<R extends Entry>({ session, field, label, value, change }: TextProps<R>) {
  return (
    <WordsField
      label={label}
      value={value}
      errors={errorsAt(session.errors, field)}
      onKeep={(words) => {
        if (words !== value) session.keep(change(session.record, words));
      }}
    />
  );
}

interface ChoiceProps<R extends Entry, V extends string> extends Pick<Editing<R>, 'session'> {
  label: string;
  value: V;
  choices: [V, string][];
  change: (record: R, value: V) => R;
}

export function RecordChoice<R extends Entry, V extends string>(props: ChoiceProps<R, V>) {
  const { session, label, value, choices, change } = props;
  return (
    <ChoiceField
      label={label}
      value={value}
      choices={choices.map(([known, name]) => ({ value: known, label: name }))}
      onChoose={(chosen) => session.keep(change(session.record, chosen as V))}
    />
  );
}
