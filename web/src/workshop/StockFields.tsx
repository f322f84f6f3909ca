/** Figures of a stock: thickness and weight, sizes, what it is for, what it costs. */
import { useMeta } from '../api/queries';
import type { SheetSize } from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { type Editing, NumberField, OwnFigure, RecordChoice, TextField } from './fields';
import type { Of } from './MachineFields';

const YES_NO = [
  { value: 'no' as const, label: 'no' },
  { value: 'yes' as const, label: 'yes' },
];

export function StockFields(editing: Editing<Of<'stocks'>>) {
  const known = useMeta().data?.sheet_sizes ?? [];
  const { session, unit } = editing;
  const { record } = session;
  const sized = (at: number, change: Partial<SheetSize>) =>
    record.sheets.map((size, other) => (other === at ? { ...size, ...change } : size));
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
        <TextField
          session={session}
          field="colour"
          label="Colour of the face"
          value={record.colour}
          change={(now, colour) => ({ ...now, colour: colour.trim().toLowerCase() })}
        />
        {yesNo('White edges show', record.white_edges, (is) =>
          session.keep({ ...record, white_edges: is }),
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
      <Rows
        title="Sizes"
        aside={
          record.sheets.length < 20 && (
            <button
              type="button"
              className="plain-button"
              onClick={() => {
                const has = (size: SheetSize) =>
                  record.sheets.some(({ name }) => name === size.name);
                const next = known.find((size) => !has(size)) ?? {
                  name: `Size ${record.sheets.length + 1}`,
                  width: 200,
                  height: 300,
                };
                session.keep({ ...record, sheets: [...record.sheets, next] });
              }}
            >
              add
            </button>
          )
        }
      >
        {record.sheets.map((size, at) => (
          <div key={at} className="station-rows">
            <TextField
              session={session}
              field="sheets.name"
              label={at === 0 ? 'First choice' : `Choice ${at + 1}`}
              value={size.name}
              change={(now, name) => ({ ...now, sheets: sized(at, { name }) })}
            />
            <NumberField
              {...editing}
              field="sheets.width"
              label="Width"
              value={size.width}
              change={(now, width) => ({ ...now, sheets: sized(at, { width }) })}
            />
            <NumberField
              {...editing}
              field="sheets.height"
              label="Height"
              value={size.height}
              change={(now, height) => ({ ...now, sheets: sized(at, { height }) })}
            />
            {record.sheets.length > 1 && (
              <button
                type="button"
                className="plain-button"
                onClick={() =>
                  session.keep({
                    ...record,
                    sheets: record.sheets.filter((_, other) => other !== at),
                  })
                }
              >
                remove {size.name}
              </button>
            )}
          </div>
        ))}
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
      </Rows>
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
