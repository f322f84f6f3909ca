/** Figures of a printing recipe: for which card and printer, what is set, and how long a sheet takes. */
import type { PrintSettings, Workshop } from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import { type Editing, NumberField, RecordChoice, TextField } from './fields';
import type { Of } from './MachineFields';
import { named } from './RecipeFields';

const SETTINGS: [Exclude<keyof PrintSettings, 'lies'>, string][] = [
  ['media', 'Paper type'],
  ['quality', 'Quality'],
  ['colour', 'Colour'],
  ['tray', 'Tray or slot'],
];

interface Props extends Editing<Of<'print_recipes'>> {
  workshop: Workshop;
}

export function PrintRecipeFields({ workshop, ...editing }: Props) {
  const { session } = editing;
  const { record } = session;
  return (
    <>
      <Rows title="For">
        <RecordChoice
          session={session}
          label="Card"
          value={record.stock}
          choices={named(workshop.stocks, record.stock)}
          change={(now, stock) => ({ ...now, stock })}
        />
        <RecordChoice
          session={session}
          label="Printer"
          value={record.printer}
          choices={named(workshop.printers, record.printer)}
          change={(now, printer) => ({ ...now, printer })}
        />
      </Rows>
      <Rows title="Set in the print dialog">
        {SETTINGS.map(([field, label]) => (
          <TextField
            key={field}
            session={session}
            field={`settings.${field}`}
            label={label}
            value={record.settings[field]}
            change={(now, text) => ({ ...now, settings: { ...now.settings, [field]: text } })}
          />
        ))}
        <RecordChoice
          session={session}
          label="Lies in it"
          value={record.settings.lies}
          choices={[
            ['face-up', 'the side to print up'],
            ['face-down', 'the side to print down'],
          ]}
          change={(now, lies) => ({ ...now, settings: { ...now.settings, lies } })}
        />
        <NumberField
          {...editing}
          field="minutes"
          label="Minutes for a side"
          note="Counted in the order’s time; 0 where nobody has taken it."
          measured="amount"
          value={record.minutes ?? 0}
          change={(now, minutes) => ({ ...now, minutes: minutes > 0 ? minutes : null })}
        />
      </Rows>
      <Rows title="Known">
        <TextField
          session={session}
          field="worked"
          label="Worked last on"
          value={record.worked ?? ''}
          change={(now, worked) => ({ ...now, worked: worked.trim() || null })}
        />
        <TextField
          session={session}
          field="note"
          label="Note"
          value={record.note ?? ''}
          change={(now, note) => ({ ...now, note })}
        />
      </Rows>
    </>
  );
}
