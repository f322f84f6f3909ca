/** Figures of a stock: thickness and weight, sizes, what it is for, what it costs. */
import { useId } from 'react';

import { useMeta } from '../api/queries';
import type { SheetSize } from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { type Editing, NumberField, OwnFigure, RecordChoice, TextField } from './fields';
import { ListRows } from './ListRows';
import type { Of } from './MachineFields';

const YES_NO = [
  { value: 'no' as const, label: 'no' },
  { value: 'yes' as const, label: 'yes' },
];

export function StockFields(editing: Editing<Of<'stocks'>>) {
  const colourId = useId();
  const known = useMeta().data?.sheet_sizes ?? [];
  const { session, unit } = editing;
  const { record } = session;
  const yesNo = (label: string, is: boolean, keep: (is: boolean) => void) => (
    <SwitchField
      label={label}
      value={is ? 'yes' : 'no'}
      choices={YES_NO}
      onChoose={(choice) => keep(choice === 'yes')}
    />
  );
  return (
    <>
      <Rows title="Card">
        <OwnFigure
          {...editing}
          field="caliper"
          label="Caliper"
          note="Its thickness, in mm or in points, such as 14 pt."
          measured="caliper"
        />
        <NumberField
          {...editing}
          field="grammage"
          label="Grammage"
          note="In g/m², or as a basis weight, such as 80 lb cover."
          measured="grammage"
          value={record.grammage ?? 0}
          change={(now, grammage) => ({ ...now, grammage: grammage > 0 ? grammage : null })}
        />
        <RecordChoice
          session={session}
          label="Grain"
          value={record.grain}
          choices={[
            ['long', 'along the long side'],
            ['short', 'along the short side'],
            ['unknown', 'not known'],
          ]}
          change={(now, grain) => ({ ...now, grain })}
        />
        <RecordChoice
          session={session}
          label="Takes print"
          value={record.printable}
          choices={[
            ['both', 'on both sides'],
            ['face', 'on its face'],
            ['neither', 'on neither side'],
          ]}
          change={(now, printable) => ({ ...now, printable })}
        />
        <RecordChoice
          session={session}
          label="Only for"
          value={record.takes ?? 'either'}
          choices={[
            ['either', 'any printer'],
            ['inkjet', 'inkjet printers'],
            ['laser', 'laser printers'],
          ]}
          change={(now, takes) => ({ ...now, takes: takes === 'either' ? null : takes })}
        />
        <RecordChoice
          session={session}
          label="Through ink shines"
          value={record.shine}
          choices={[
            ['opaque', 'nothing'],
            ['clear', 'what lies behind'],
            ['reflective', 'its own gloss'],
          ]}
          change={(now, shine) => ({ ...now, shine })}
        />
        <div className="row-field">
          <label htmlFor={colourId}>Colour of the face</label>
          <span className="inks">
            <input
              id={colourId}
              type="color"
              className="ink ink-mixed"
              value={record.colour}
              onChange={(event) => session.propose({ ...record, colour: event.target.value })}
              onBlur={() => {
                if (session.isHeld) session.keep(record);
              }}
            />
          </span>
        </div>
        {yesNo('White edges show', record.white_edges, (is) =>
          session.keep({ ...record, white_edges: is }),
        )}
        {yesNo('Printed mirrored', record.mirrored, (is) =>
          session.keep({ ...record, mirrored: is }),
        )}
        {yesNo('On a liner', record.liner !== null, (is) =>
          session.keep({ ...record, liner: is ? Math.min(0.08, record.caliper / 2) : null }),
        )}
        {record.liner !== null && (
          <NumberField
            {...editing}
            field="liner"
            label="Liner"
            measured="caliper"
            value={record.liner}
            change={(now, liner) => ({ ...now, liner })}
          />
        )}
        {yesNo('Laminated after print', record.laminate !== null, (is) =>
          session.keep({
            ...record,
            laminate: is ? { thickness: 0.04, clear_to_eye: true } : null,
          }),
        )}
        {record.laminate && (
          <>
            <NumberField
              {...editing}
              field="laminate.thickness"
              label="Laminate"
              measured="caliper"
              value={record.laminate.thickness}
              change={(now, thickness) => ({
                ...now,
                laminate: { clear_to_eye: now.laminate?.clear_to_eye ?? true, thickness },
              })}
            />
            {yesNo('The eye reads through it', record.laminate.clear_to_eye, (is) =>
              session.keep({
                ...record,
                laminate: { thickness: record.laminate?.thickness ?? 0.04, clear_to_eye: is },
              }),
            )}
          </>
        )}
      </Rows>
      <ListRows<SheetSize>
        title="Sizes"
        entries={record.sheets}
        most={20}
        nameOf={({ name }) => name}
        next={() => {
          const has = (size: SheetSize) => record.sheets.some(({ name }) => name === size.name);
          const own = { name: `Size ${record.sheets.length + 1}`, width: 200, height: 300 };
          return known.find((size) => !has(size)) ?? own;
        }}
        onChange={(sheets) => session.keep({ ...record, sheets })}
        rows={(size, at, change) => (
          <>
            <TextField
              session={session}
              field="sheets.name"
              label={at === 0 ? 'First choice' : `Choice ${at + 1}`}
              value={size.name}
              change={(now, name) => ({ ...now, sheets: change({ name }) })}
            />
            <NumberField
              {...editing}
              field="sheets.width"
              label="Width"
              value={size.width}
              change={(now, width) => ({ ...now, sheets: change({ width }) })}
            />
            <NumberField
              {...editing}
              field="sheets.height"
              label="Height"
              value={size.height}
              change={(now, height) => ({ ...now, sheets: change({ height }) })}
            />
          </>
        )}
      >
        {yesNo('Comes from a roll', record.roll !== null, (is) =>
          session.keep({ ...record, roll: is ? { side: 25.4 } : null }),
        )}
        {record.roll && (
          <NumberField
            {...editing}
            field="roll.side"
            label="Lost at each side"
            value={record.roll.side}
            change={(now, side) => ({ ...now, roll: { side } })}
          />
        )}
      </ListRows>
      <Rows title="Price">
        {yesNo('A price is known', record.price !== null, (is) =>
          session.keep({ ...record, price: is ? { amount: 0.5, currency: '€' } : null }),
        )}
        {record.price && (
          <>
            <NumberField
              session={session}
              unit={unit}
              field="price.amount"
              label={`For a sheet of ${record.sheets[0]?.name ?? 'the first size'}`}
              measured="amount"
              value={record.price.amount}
              change={(now, amount) => ({
                ...now,
                price: { currency: now.price?.currency ?? '€', amount },
              })}
            />
            <TextField
              session={session}
              field="price.currency"
              label="Currency"
              value={record.price.currency}
              change={(now, currency) => ({
                ...now,
                price: { amount: now.price?.amount ?? 0, currency },
              })}
            />
          </>
        )}
      </Rows>
    </>
  );
}
