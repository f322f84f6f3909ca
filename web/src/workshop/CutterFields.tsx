/** Figures of a cutter: reach, how it finds the sheet, stations. */
import { Button } from 'react-bootstrap';

import type {
  DepthSetting,
  Finds,
  ForceUnit,
  MarkShapeName,
  Station,
  Tool,
} from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import { type Editing, NumberField, OwnFigure, RecordChoice, TextField } from './fields';
import { ListRows } from './ListRows';
import { CORNERS, MarginRows, type Of } from './MachineFields';
import { MovingRows } from './MovingRows';
import { SYMBOLS } from '../tooling/units';

const BY: [Finds['by'], string][] = [
  ['eye', 'its eye, on marks'],
  ['crosshairs', 'crosshairs set by hand'],
  ['scan', 'scanning the page'],
  ['sheet-edge', 'the sheet’s edge'],
  ['printed-itself', 'it printed the sheet'],
];

const SHAPES: [MarkShapeName, string][] = [
  ['angle', 'angles'],
  ['dot', 'dots'],
  ['cross', 'crosses'],
];

const TOOLS: [Tool, string][] = [
  ['drag-knife', 'knife'],
  ['creaser', 'creaser'],
  ['pen', 'pen'],
];

const FORCES: [ForceUnit, string][] = [
  ['newtons', 'newtons'],
  ['grams', 'grams'],
  ['steps', 'steps of its own'],
];

const DEPTHS: [DepthSetting, string][] = [
  ['fixed', 'fixed'],
  ['stepped', 'by numbered steps'],
  ['cap', 'by its cap'],
  ['itself', 'by itself'],
];

const EYE: ['smallest' | 'edge' | 'keep_clear', string][] = [
  ['smallest', 'Smallest mark'],
  ['edge', 'No nearer to the edge'],
  ['keep_clear', 'Keep-clear it needs'],
];

const found = (by: Finds['by']): Finds =>
  by === 'eye' ? { by, shapes: ['angle'], smallest: 8, edge: 5, keep_clear: 2 } : { by };

/** The list with one thing more, or without it. */
const toggled = <T,>(list: T[], thing: T) =>
  list.includes(thing) ? list.filter((other) => other !== thing) : [...list, thing];

export function CutterFields(editing: Editing<Of<'cutters'>>) {
  const { session } = editing;
  const { record } = session;
  const { finds, stations } = record;
  return (
    <>
      <Rows title="Takes">
        <OwnFigure {...editing} field="width" label="Widest sheet" />
        <OwnFigure {...editing} field="length" label="Longest sheet" />
        <OwnFigure {...editing} field="thickest" label="Thickest card" measured="caliper" />
        <RecordChoice
          session={session}
          label="Force is told in"
          value={record.force_unit}
          choices={FORCES}
          change={(now, force_unit) => ({ ...now, force_unit })}
        />
        <NumberField
          {...editing}
          field="force"
          label={`Greatest force, ${SYMBOLS[record.force_unit]}`}
          note="0 where it is not known."
          measured="amount"
          value={record.force ?? 0}
          change={(now, force) => ({ ...now, force: force > 0 ? force : null })}
        />
        <RecordChoice
          session={session}
          label="Through cuts go into"
          value={record.bears_cuts ? 'bed' : 'carrier'}
          choices={[
            ['bed', 'its bed, which bears them'],
            ['carrier', 'a carrier'],
          ]}
          change={(now, into) => ({ ...now, bears_cuts: into === 'bed' })}
        />
      </Rows>
      <MarginRows
        {...editing}
        field="margins"
        title="Rollers or clamps take"
        margins={record.margins}
        change={(now, margins) => ({ ...now, margins })}
      />
      <Rows title="Finds the sheet">
        <RecordChoice
          session={session}
          label="By"
          value={finds.by}
          choices={BY}
          change={(now, by) => ({ ...now, finds: found(by) })}
        />
        {finds.by === 'eye' && (
          <>
            <div className="row-field">
              <span>Reads</span>
              <Ticks
                choices={SHAPES}
                chosen={finds.shapes}
                onToggle={(shape) =>
                  session.keep({
                    ...record,
                    finds: { ...finds, shapes: toggled(finds.shapes, shape) },
                  })
                }
              />
            </div>
            {EYE.map(([field, label]) => (
              <NumberField
                key={field}
                {...editing}
                field={`finds.${field}`}
                label={label}
                value={finds[field]}
                change={(now, value) => ({ ...now, finds: { ...finds, [field]: value } })}
              />
            ))}
          </>
        )}
        {(finds.by === 'eye' || finds.by === 'crosshairs') && (
          <>
            <OwnFigure {...editing} field="lead" label="Lead before the marks" />
            <OwnFigure {...editing} field="tail" label="Tail behind the marks" />
            <RecordChoice
              session={session}
              label="Cuts"
              value={record.field}
              choices={[
                ['whole-reach', 'wherever it reaches'],
                ['within-marks', 'only inside the marks'],
              ]}
              change={(now, field) => ({ ...now, field })}
            />
          </>
        )}
        <RecordChoice
          session={session}
          label="Blade starts"
          value={record.start}
          choices={CORNERS}
          change={(now, start) => ({ ...now, start })}
        />
      </Rows>
      <ListRows<Station>
        title="Stations"
        entries={stations}
        most={8}
        nameOf={({ name }) => name}
        next={() => ({
          name: `Station ${stations.length + 1}`,
          tools: ['creaser'],
          depth: 'fixed',
        })}
        onChange={(stations) => session.keep({ ...record, stations })}
        rows={(station, at, change) => (
          <>
            <TextField
              session={session}
              field="stations"
              label={`Station ${at + 1}`}
              value={station.name}
              change={(now, name) => ({ ...now, stations: change({ name }) })}
            />
            <div className="row-field">
              <span>Holds</span>
              <Ticks
                choices={TOOLS}
                chosen={station.tools}
                onToggle={(tool) =>
                  session.keep({
                    ...record,
                    stations: change({ tools: toggled(station.tools, tool) }),
                  })
                }
              />
            </div>
            <RecordChoice
              session={session}
              label="Blade depth"
              value={station.depth}
              choices={DEPTHS}
              change={(now, depth) => ({ ...now, stations: change({ depth }) })}
            />
          </>
        )}
      />
      <MovingRows {...editing} />
    </>
  );
}

interface TicksProps<T extends string> {
  choices: [T, string][];
  chosen: T[];
  onToggle: (value: T) => void;
}

function Ticks<T extends string>({ choices, chosen, onToggle }: TicksProps<T>) {
  return (
    <span className="ticks">
      {choices.map(([value, label]) => (
        <Button
          variant="bare"
          key={value}
          aria-pressed={chosen.includes(value)}
          onClick={() => onToggle(value)}
        >
          {label}
        </Button>
      ))}
    </span>
  );
}
