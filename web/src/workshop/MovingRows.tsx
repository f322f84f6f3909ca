/** How a cutter moves and is spoken to: its knife, its pace, and the HP-GL that it takes. */
import type { Pace } from '../api/generated/types';
import { useMeta } from '../api/queries';
import { Rows } from '../card/SpecCard';
import { type Editing, NumberField, RecordChoice, TextField } from './fields';
import { CORNERS, type Of } from './MachineFields';

const PACES: [keyof Pace, string][] = [
  ['working', 'Working, mm/s'],
  ['travel', 'Travelling, mm/s'],
  ['acceleration', 'Acceleration, mm/s²'],
  ['lift', 'Lift and lower, s'],
];

const COMMANDS: ['station' | 'force' | 'speed' | 'depth' | 'passes', string][] = [
  ['station', 'Chooses a station'],
  ['force', 'Sets the force, in its unit'],
  ['speed', 'Sets the speed, cm/s'],
  ['depth', 'Sets the depth, step'],
  ['passes', 'Repeats lines, passes'],
];

export function MovingRows(editing: Editing<Of<'cutters'>>) {
  const starts = useMeta().data?.starts;
  const { session } = editing;
  const { record } = session;
  const { knife, pace, dialect, gcode } = record;
  return (
    <>
      <Rows title="Knife">
        <NumberField
          {...editing}
          field="knife.offset"
          label="Tip behind its axis"
          value={knife.offset}
          change={(now, offset) => ({ ...now, knife: { ...now.knife, offset } })}
        />
        <NumberField
          {...editing}
          field="knife.overcut"
          label="Cuts past its beginning"
          value={knife.overcut}
          change={(now, overcut) => ({ ...now, knife: { ...now.knife, overcut } })}
        />
        <RecordChoice
          session={session}
          label="Allowed for by"
          value={knife.allowed_by}
          choices={[
            ['machine', 'the machine'],
            ['aptum', 'Aptum'],
          ]}
          change={(now, by) => ({ ...now, knife: { ...now.knife, allowed_by: by } })}
        />
      </Rows>
      <Rows title="Pace">
        <RecordChoice
          session={session}
          label="Known"
          value={pace ? 'yes' : 'no'}
          choices={[
            ['yes', 'yes'],
            ['no', 'no: times are not told'],
          ]}
          change={(now, known) => ({
            ...now,
            pace: known === 'yes' ? (starts?.pace ?? null) : null,
          })}
        />
        {pace &&
          PACES.map(([field, label]) => (
            <NumberField
              key={field}
              {...editing}
              field={`pace.${field}`}
              label={label}
              measured="amount"
              value={pace[field]}
              change={(now, value) => ({ ...now, pace: { ...pace, [field]: value } })}
            />
          ))}
      </Rows>
      <Rows title="Language">
        <RecordChoice
          session={session}
          label="Takes"
          value={dialect ? 'hpgl' : 'files'}
          choices={[
            ['files', 'SVG or DXF files'],
            ['hpgl', 'HP-GL'],
          ]}
          change={(now, takes) => ({
            ...now,
            dialect: takes === 'hpgl' ? (starts?.dialect ?? null) : null,
          })}
        />
        {dialect && (
          <>
            <NumberField
              {...editing}
              field="dialect.units"
              label="Units in a millimetre"
              measured="amount"
              value={dialect.units}
              change={(now, units) => ({ ...now, dialect: { ...dialect, units } })}
            />
            <RecordChoice
              session={session}
              label="Counts from"
              value={dialect.origin}
              choices={CORNERS}
              change={(now, origin) => ({ ...now, dialect: { ...dialect, origin } })}
            />
            <RecordChoice
              session={session}
              label="x runs"
              value={dialect.swapped ? 'along' : 'across'}
              choices={[
                ['across', 'across the sheet'],
                ['along', 'along its feed'],
              ]}
              change={(now, runs) => ({
                ...now,
                dialect: { ...dialect, swapped: runs === 'along' },
              })}
            />
            {COMMANDS.map(([field, label]) => (
              <TextField
                key={field}
                session={session}
                field={`dialect.${field}`}
                label={label}
                value={dialect[field]}
                change={(now, command) => ({ ...now, dialect: { ...dialect, [field]: command } })}
              />
            ))}
            <RecordChoice
              session={session}
              label="Is told of marks"
              value={dialect.marks ? 'yes' : 'no'}
              choices={[
                ['no', 'by hand, at the machine'],
                ['yes', 'with the file'],
              ]}
              change={(now, told) => ({ ...now, dialect: { ...dialect, marks: told === 'yes' } })}
            />
            <TextField
              session={session}
              field="address"
              label="Reached at (TCP)"
              value={record.address}
              change={(now, address) => ({ ...now, address })}
            />
          </>
        )}
        <RecordChoice
          session={session}
          label="G-code too"
          value={gcode ? 'yes' : 'no'}
          choices={[
            ['no', 'no'],
            ['yes', 'yes (ISO 6983)'],
          ]}
          change={(now, takes) => ({
            ...now,
            gcode: takes === 'yes' ? (starts?.gcode ?? null) : null,
          })}
        />
        {gcode && (
          <>
            <NumberField
              {...editing}
              field="gcode.travel"
              label="Travels above the card"
              value={gcode.travel}
              change={(now, travel) => ({ ...now, gcode: { ...gcode, travel } })}
            />
            <NumberField
              {...editing}
              field="gcode.depth"
              label="Works below its face"
              value={gcode.depth}
              change={(now, depth) => ({ ...now, gcode: { ...gcode, depth } })}
            />
          </>
        )}
      </Rows>
    </>
  );
}
