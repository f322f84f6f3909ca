/** Figures of printers, carriers and mark sets. */
import type {
  Corner,
  Margins,
  MarkShape,
  Record as Entry,
  RecordKind,
} from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import { type Editing, NumberField, OwnFigure, RecordChoice, TextField } from './fields';

export type Of<K extends RecordKind> = Extract<Entry, { kind: K }>;

const SIDES: [keyof Margins, string][] = [
  ['lead', 'Leading edge'],
  ['trail', 'Trailing edge'],
  ['left', 'Left'],
  ['right', 'Right'],
];

interface MarginProps<R extends Entry> extends Editing<R> {
  field: string;
  title: string;
  margins: Margins;
  change: (record: R, margins: Margins) => R;
}

export function MarginRows<R extends Entry>(props: MarginProps<R>) {
  const { field, title, margins, change, ...editing } = props;
  return (
    <Rows title={title}>
      {SIDES.map(([side, label]) => (
        <NumberField
          key={side}
          {...editing}
          field={`${field}.${side}`}
          label={label}
          value={margins[side]}
          change={(record, value) => change(record, { ...margins, [side]: value })}
        />
      ))}
    </Rows>
  );
}

export function PrinterFields(editing: Editing<Of<'printers'>>) {
  const { record } = editing.session;
  return (
    <>
      <Rows title="Largest sheet">
        <OwnFigure {...editing} field="width" label="Width" />
        <OwnFigure {...editing} field="length" label="Length" />
      </Rows>
      <MarginRows
        {...editing}
        field="margins"
        title="Cannot print on"
        margins={record.margins}
        change={(now, margins) => ({ ...now, margins })}
      />
      <Rows title="Printing">
        <RecordChoice
          session={editing.session}
          label="Prints with"
          value={record.process ?? 'unknown'}
          choices={[
            ['unknown', 'not known'],
            ['inkjet', 'ink (inkjet)'],
            ['laser', 'toner (laser)'],
          ]}
          change={(now, process) => ({ ...now, process: process === 'unknown' ? null : process })}
        />
      </Rows>
      <Rows title="Printing the back">
        <RecordChoice
          session={editing.session}
          label="Turns sheets about"
          value={record.turns_about}
          choices={[
            ['long-edge', 'the longer edge'],
            ['short-edge', 'the shorter edge'],
          ]}
          change={(now, turns_about) => ({ ...now, turns_about })}
        />
        <OwnFigure {...editing} field="turning_error" label="Back off the front by up to" />
      </Rows>
      <Rows title="Print files">
        <TextField
          session={editing.session}
          field="address"
          label="Reached at (TCP)"
          value={record.address}
          change={(now, address) => ({ ...now, address })}
        />
      </Rows>
    </>
  );
}

export function CarrierFields(editing: Editing<Of<'carriers'>>) {
  const { record } = editing.session;
  return (
    <>
      <Rows title="Over all">
        <OwnFigure {...editing} field="width" label="Width" />
        <OwnFigure {...editing} field="length" label="Length" />
      </Rows>
      <MarginRows
        {...editing}
        field="border"
        title="Does not hold"
        margins={record.border}
        change={(now, border) => ({ ...now, border })}
      />
    </>
  );
}

export const CORNERS: [Corner, string][] = [
  ['top-left', 'top left'],
  ['top-right', 'top right'],
  ['bottom-right', 'bottom right'],
  ['bottom-left', 'bottom left'],
];

/** Another shape of about the same size. */
function shaped(mark: MarkShape, shape: MarkShape['shape']): MarkShape {
  const size = mark.shape === 'dot' ? mark.diameter : mark.arm;
  if (shape === 'dot') return { shape, diameter: size };
  const stroke = mark.shape === 'dot' ? Math.min(1, size / 8) : mark.stroke;
  return { shape, arm: size, stroke };
}

export function MarkFields(editing: Editing<Of<'mark_sets'>>) {
  const { record } = editing.session;
  const { mark } = record;
  return (
    <>
      <Rows title="Each mark">
        <RecordChoice
          session={editing.session}
          label="Shape"
          value={mark.shape}
          choices={[
            ['angle', 'corner angle'],
            ['dot', 'filled dot'],
            ['cross', 'open cross'],
          ]}
          change={(now, shape) => ({ ...now, mark: shaped(now.mark, shape) })}
        />
        {mark.shape === 'dot' ? (
          <NumberField
            {...editing}
            field="mark.diameter"
            label="Diameter"
            value={mark.diameter}
            change={(now, diameter) => ({ ...now, mark: { shape: 'dot', diameter } })}
          />
        ) : (
          <>
            <NumberField
              {...editing}
              field="mark.arm"
              label="Arm"
              value={mark.arm}
              change={(now, arm) => ({ ...now, mark: { ...mark, arm } })}
            />
            <NumberField
              {...editing}
              field="mark.stroke"
              label="Stroke"
              value={mark.stroke}
              change={(now, stroke) => ({ ...now, mark: { ...mark, stroke } })}
            />
          </>
        )}
        <OwnFigure
          {...editing}
          field="keep_clear"
          label="Keep-clear"
          note="Clear space that the eye needs around each mark."
        />
      </Rows>
      <Rows title="Where they stand">
        <OwnFigure {...editing} field="across" label="From left and right" />
        <OwnFigure {...editing} field="along" label="From top and bottom" />
        <RecordChoice
          session={editing.session}
          label="Counted from"
          value={record.from}
          choices={[
            ['paper-edge', 'the sheet’s edge'],
            ['printable-edge', 'the printable edge'],
          ]}
          change={(now, from) => ({ ...now, from })}
        />
        <RecordChoice
          session={editing.session}
          label="Read first"
          value={record.first}
          choices={CORNERS}
          change={(now, first) => ({ ...now, first })}
        />
        <RecordChoice
          session={editing.session}
          label="A turned sheet shows by"
          value={record.tell}
          choices={[
            ['missing-mark', 'a missing fourth mark'],
            ['odd-mark', 'a fourth that differs'],
            ['numeral', 'a “1” beside the first'],
            ['sheet-code', 'the sheet’s code'],
          ]}
          change={(now, tell) => ({ ...now, tell })}
        />
      </Rows>
    </>
  );
}
