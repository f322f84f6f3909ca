/** Figures of a recipe: for which card, cutter, tool and line, and with which settings. */
import type { ForceUnit, LineKind, Tool, Workshop } from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import { SYMBOLS } from '../tooling/units';
import { type Editing, NumberField, RecordChoice, TextField } from './fields';
import type { Of } from './MachineFields';

const TOOLS: [Tool, string][] = [
  ['drag-knife', 'knife'],
  ['creaser', 'creaser'],
  ['pen', 'pen'],
];

const LINES: [LineKind, string][] = [
  ['crease', 'crease'],
  ['reverse-crease', 'reverse crease'],
  ['score', 'score'],
  ['kiss-cut', 'kiss cut'],
  ['perforation', 'perforation'],
  ['cut', 'cut'],
];

interface Props extends Editing<Of<'recipes'>> {
  workshop: Workshop;
}

export const named = (records: Record<string, { name: string } | undefined>, own: string) => {
  const all = Object.entries(records).map(([id, record]): [string, string] => [
    id,
    record?.name ?? id,
  ]);
  return all.some(([id]) => id === own) ? all : [[own, 'none yet'] as [string, string], ...all];
};

export function RecipeFields({ workshop, ...editing }: Props) {
  const { session } = editing;
  const { record } = session;
  const unit: ForceUnit = workshop.cutters[record.cutter]?.force_unit ?? 'newtons';
  const told = record.force ?? null;
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
          label="Cutter"
          value={record.cutter}
          choices={named(workshop.cutters, record.cutter)}
          change={(now, cutter) => ({ ...now, cutter })}
        />
        <RecordChoice
          session={session}
          label="Tool"
          value={record.tool}
          choices={TOOLS}
          change={(now, tool) => ({ ...now, tool })}
        />
        <RecordChoice
          session={session}
          label="Line"
          value={record.line}
          choices={LINES}
          change={(now, line) => ({ ...now, line })}
        />
      </Rows>
      <Rows title="Settings">
        <NumberField
          {...editing}
          field="force.amount"
          label={`Force, ${SYMBOLS[told?.unit ?? unit]}`}
          note="In the cutter’s own unit; 0 leaves it to the machine."
          measured="amount"
          value={told?.amount ?? 0}
          change={(now, amount) => ({ ...now, force: amount > 0 ? { amount, unit } : null })}
        />
        <NumberField
          {...editing}
          field="speed"
          label="Speed, mm/s"
          note="0 leaves it to the machine."
          measured="amount"
          value={record.speed ?? 0}
          change={(now, speed) => ({ ...now, speed: speed > 0 ? speed : null })}
        />
        <NumberField
          {...editing}
          field="passes"
          label="Passes"
          measured="count"
          value={record.passes}
          change={(now, passes) => ({ ...now, passes })}
        />
        <NumberField
          {...editing}
          field="depth"
          label="Blade depth, step"
          note="0 leaves it as it is."
          measured="amount"
          value={record.depth ?? 0}
          change={(now, depth) => ({ ...now, depth: depth > 0 ? depth : null })}
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
