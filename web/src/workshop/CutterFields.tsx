/** Figures of a cutter: reach, how it finds the sheet, stations. */
import type { Cutter, DepthSetting, Finds, MarkShapeName, Tool } from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import { type Editing, NumberField, OwnFigure, RecordChoice, TextField } from './fields';
import { CORNERS, MarginRows, type Of } from './MachineFields';

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

const DEPTHS: [DepthSetting, string][] = [
  ['fixed', 'fixed'],
  ['stepped', 'by numbered steps'],
  ['cap', 'by its cap'],
  ['itself', 'by itself'],
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
  const station = (at: number, change: (station: Cutter['stations'][number]) => object) =>
    session.keep({
      ...record,
      stations: stations.map((known, other) =>
        other === at ? { ...known, ...change(known) } : known,
      ),
    });
  return (
    <>
      <Rows title="Takes">
        <OwnFigure {...editing} field="width" label="Widest sheet" />
        <OwnFigure {...editing} field="length" label="Longest sheet" />
        <OwnFigure {...editing} field="thickest" label="Thickest card" measured="caliper" />
        <NumberField
          {...editing}
          field="force"
          label="Greatest force, N"
          note="In newtons; 0 where it is not known."
          measured="amount"
          value={record.force ?? 0}
          change={(now, force) => ({ ...now, force: force > 0 ? force : null })}
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
            <NumberField
              {...editing}
              field="finds.smallest"
              label="Smallest mark"
              value={finds.smallest}
              change={(now, smallest) => ({ ...now, finds: { ...finds, smallest } })}
            />
            <NumberField
              {...editing}
              field="finds.edge"
              label="No nearer to the edge"
              value={finds.edge}
              change={(now, edge) => ({ ...now, finds: { ...finds, edge } })}
            />
            <NumberField
              {...editing}
              field="finds.keep_clear"
              label="Keep-clear it needs"
              value={finds.keep_clear}
              change={(now, clear) => ({ ...now, finds: { ...finds, keep_clear: clear } })}
            />
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
      <Rows
        title="Stations"
        aside={
          stations.length < 8 && (
            <button
              type="button"
              className="plain-button"
              onClick={() =>
                session.keep({
                  ...record,
                  stations: [
                    ...stations,
                    { name: `Station ${stations.length + 1}`, tools: ['creaser'], depth: 'fixed' },
                  ],
                })
              }
            >
              add
            </button>
          )
        }
      >
        {stations.map((known, at) => (
          <div key={`${at} ${known.name}`} className="station-rows">
            <TextField
              session={session}
              field="stations"
              label={`Station ${at + 1}`}
              value={known.name}
              change={(now, name) => ({
                ...now,
                stations: now.stations.map((other, index) =>
                  index === at ? { ...other, name } : other,
                ),
              })}
            />
            <div className="row-field">
              <span>Holds</span>
              <Ticks
                choices={TOOLS}
                chosen={known.tools}
                onToggle={(tool) => station(at, (now) => ({ tools: toggled(now.tools, tool) }))}
              />
            </div>
            <RecordChoice
              session={session}
              label="Blade depth"
              value={known.depth}
              choices={DEPTHS}
              change={(now, depth) => ({
                ...now,
                stations: now.stations.map((other, index) =>
                  index === at ? { ...other, depth } : other,
                ),
              })}
            />
            {stations.length > 1 && (
              <button
                type="button"
                className="plain-button"
                onClick={() =>
                  session.keep({
                    ...record,
                    stations: stations.filter((_, other) => other !== at),
                  })
                }
              >
                remove {known.name}
              </button>
            )}
          </div>
        ))}
      </Rows>
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
        <button
          key={value}
          type="button"
          aria-pressed={chosen.includes(value)}
          onClick={() => onToggle(value)}
        >
          {label}
        </button>
      ))}
    </span>
  );
}
