/** Lines mended by hand: tools for the line, the node and the segment that are taken, lines added, and what was done. */
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';

import type {
  AddedLine,
  DrawingView,
  LineDrawing,
  LineMend,
  Meaning,
  Scale,
  UnitInfo,
} from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import { Result, Rows } from '../card/SpecCard';
import type { Mending, Together } from './useMending';

interface Props {
  own: LineDrawing;
  view: DrawingView;
  unit: UnitInfo;
  mending: Mending;
  isOn: boolean;
  onSwitch: (is: boolean) => void;
  onScale: (scale: Scale) => void;
}

/** What the other line is pressed for. */
const WAITING: Record<Together, string> = {
  join: 'Press on the line whose end is joined to it.',
  trim: 'Press on the line to which it is trimmed: what you pressed goes.',
  unite: 'Press on the outline that is united with it.',
  subtract: 'Press on the outline that is taken away from this one, which is kept.',
  intersect: 'Press on the other outline: what both enclose is kept.',
};

const FIGURES = ['line', 'rectangle', 'ellipse', 'arc'] as const;

export function HandRows({ own, view, unit, mending, isOn, onSwitch, onScale }: Props) {
  const steps = own.mends ?? [];
  return (
    <Rows
      title="By hand"
      aside={
        <Button
          size="sm"
          variant={isOn ? 'primary' : 'outline-primary'}
          aria-pressed={isOn}
          onClick={() => onSwitch(!isOn)}
        >
          {isOn ? 'done' : 'mend lines'}
        </Button>
      }
    >
      {isOn && (
        <>
          <p className="trace-hint" role="status">
            {mending.waits
              ? WAITING[mending.waits]
              : mending.picked
                ? 'Drag its nodes, or press on a stretch of it.'
                : 'Press on a line to work at it.'}
          </p>
          <div className="trace-hands" role="group" aria-label="Which line">
            <Tool label="next line" onUse={() => mending.next(1)} />
            <Tool label="line before" onUse={() => mending.next(-1)} />
          </div>
          {mending.trouble && (
            <p className="lay-note lay-trouble" role="alert">
              {mending.trouble}
            </p>
          )}
          {mending.picked && <LineTools {...{ view, unit, mending, onScale }} />}
          <AddLine {...{ view, unit, mending }} />
        </>
      )}
      {view.mended.map(({ words, is_done: isDone }, step) => (
        <div className={`row-result${isDone ? '' : ' is-refused'}`} key={step}>
          <span>{isDone ? words : `not done: ${words}`}</span>
          {step === steps.length - 1 && (
            <Button
              size="sm"
              variant="link"
              aria-label="Take the last step back"
              onClick={mending.back}
            >
              take back
            </Button>
          )}
        </div>
      ))}
    </Rows>
  );
}

interface ToolProps {
  view: DrawingView;
  unit: UnitInfo;
  mending: Mending;
}

function Tool({ label, onUse, isOn }: { label: string; onUse: () => void; isOn?: boolean }) {
  return (
    <Button
      size="sm"
      variant={isOn ? 'primary' : 'outline-primary'}
      {...(isOn === undefined ? {} : { 'aria-pressed': isOn })}
      onClick={onUse}
    >
      {label}
    </Button>
  );
}

function LineTools({ view, unit, mending, onScale }: ToolProps & Pick<Props, 'onScale'>) {
  const [within, setWithin] = useState(0.1);
  const [width, setWidth] = useState(3);
  const [radius, setRadius] = useState(3);
  const { picked, node, near } = mending;
  if (!picked) return null;
  const { line } = picked;
  const lines = [line];
  const keep = (mend: LineMend) => void mending.keep(mend);
  const taken = node === null ? undefined : picked.nodes[node];
  const together = (act: Together, label: string) => (
    <Tool
      label={label}
      isOn={mending.waits === act}
      onUse={() => mending.setWaits(mending.waits === act ? null : act)}
    />
  );
  const move = (to: [number, number]) => {
    if (node !== null) keep({ step: 'move', line, node, to });
  };
  return (
    <>
      <Result
        label={`Line ${line + 1}, ${picked.is_closed ? 'closed' : 'open'}`}
        value={`${picked.nodes.length} nodes, ${picked.length_text}`}
      />
      <PlainLength
        label="Is really"
        note="How long this line is on paper: all of the drawing is scaled by it."
        value={picked.length * view.unit}
        unit={unit}
        onTry={() => undefined}
        onKeep={(mm) => onScale({ by: 'known', units: picked.length, mm })}
      />
      <div className="row-field">
        <label htmlFor="line-is">It is</label>
        <Form.Select
          id="line-is"
          size="sm"
          value={picked.told ?? ''}
          onChange={({ target: { value } }) => {
            if (value) keep({ step: 'meaning', lines, meaning: value as Meaning });
          }}
        >
          <option value="">as its row says</option>
          {view.meanings.map(({ meaning, name }) => (
            <option key={meaning} value={meaning}>
              {name}
            </option>
          ))}
        </Form.Select>
      </div>
      <div className="trace-hands" role="group" aria-label="The line">
        {!picked.is_closed && (
          <Tool label="close" onUse={() => keep({ step: 'join', line, with: null })} />
        )}
        {!picked.is_closed && together('join', 'join to…')}
        {together('trim', 'trim to…')}
        {picked.is_closed && together('unite', 'unite with…')}
        {picked.is_closed && together('subtract', 'take away…')}
        {picked.is_closed && together('intersect', 'in common with…')}
        {picked.is_closed && (
          <Tool
            label="drop what lies inside"
            onUse={() => {
              mending.take(null);
              keep({ step: 'silhouette', row: picked.row });
            }}
          />
        )}
        <Tool
          label="delete"
          onUse={() => {
            mending.take(null);
            keep({ step: 'delete', lines });
          }}
        />
      </div>
      <PlainLength label="May stray by" value={within} unit={unit} onKeep={setWithin} />
      <div className="trace-hands">
        <Tool
          label="simplify"
          onUse={() => keep({ step: 'simplify', lines, within: within / view.unit })}
        />
      </div>
      <PlainLength label="Width of the stroke" value={width} unit={unit} onKeep={setWidth} />
      <div className="trace-hands">
        <Tool
          label="make its outline"
          onUse={() => keep({ step: 'outline', lines, width: width / view.unit })}
        />
      </div>
      {near && node === null && (
        <div className="trace-hands" role="group" aria-label="The stretch">
          <Tool
            label="put a node in"
            onUse={() => keep({ step: 'add-node', line, segment: near.segment, share: near.share })}
          />
          {picked.segments[near.segment]?.is_straight === false && (
            <Tool
              label="make straight"
              onUse={() => keep({ step: 'straighten', line, segment: near.segment })}
            />
          )}
        </div>
      )}
      {taken && node !== null && (
        <>
          <PlainLength
            label={`Node ${node + 1}: right`}
            value={view.at[0] + taken.at[0] * view.unit}
            unit={unit}
            onTry={() => undefined}
            onKeep={(mm) => move([(mm - view.at[0]) / view.unit, taken.at[1]])}
          />
          <PlainLength
            label="Down"
            value={view.at[1] + taken.at[1] * view.unit}
            unit={unit}
            onTry={() => undefined}
            onKeep={(mm) => move([taken.at[0], (mm - view.at[1]) / view.unit])}
          />
          <div className="trace-hands" role="group" aria-label="The node">
            <Tool label="smooth" onUse={() => keep({ step: 'smooth', line, node })} />
            <Tool label="corner" onUse={() => keep({ step: 'corner', line, node })} />
            <Tool label="part here" onUse={() => keep({ step: 'split', line, node })} />
            <Tool
              label="take out"
              onUse={() => {
                mending.setNode(null);
                keep({ step: 'drop-node', line, node });
              }}
            />
          </div>
          <PlainLength label="Radius" value={radius} unit={unit} onKeep={setRadius} />
          <div className="trace-hands">
            <Tool
              label="round it"
              onUse={() => {
                mending.setNode(null);
                keep({ step: 'round', line, node, radius: radius / view.unit });
              }}
            />
          </div>
        </>
      )}
    </>
  );
}

/** A line added by figures, counted from the top left of the piece. */
function AddLine({ view, unit, mending }: ToolProps) {
  const [figure, setFigure] = useState<(typeof FIGURES)[number] | ''>('');
  const [meaning, setMeaning] = useState<Meaning>('cut');
  const [mm, setMm] = useState({ x: 10, y: 10, width: 20, height: 10, from: 0, through: 180 });
  const length = (key: 'x' | 'y' | 'width' | 'height', label: string) => (
    <PlainLength
      key={key}
      label={label}
      value={mm[key]}
      unit={unit}
      onKeep={(value) => setMm({ ...mm, [key]: value })}
    />
  );
  const angle = (key: 'from' | 'through', label: string) => (
    <PlainLength
      key={key}
      label={label}
      value={mm[key]}
      unit={unit}
      measured="angle"
      onKeep={(value) => setMm({ ...mm, [key]: value })}
    />
  );
  const place = (x: number, y: number): [number, number] => [
    (x - view.at[0]) / view.unit,
    (y - view.at[1]) / view.unit,
  ];
  const size: [number, number] = [mm.width / view.unit, mm.height / view.unit];
  const at = place(mm.x, mm.y);
  const made = (): AddedLine => {
    switch (figure) {
      case 'rectangle':
        return { figure, at, size };
      case 'ellipse':
        return { figure, at, size };
      case 'arc':
        return { figure, at, radius: size[0] / 2, from: mm.from, through: mm.through };
      default:
        return { figure: 'line', from: at, to: place(mm.x + mm.width, mm.y + mm.height) };
    }
  };
  const words = {
    line: ['Across', 'Down'],
    rectangle: ['Width', 'Height'],
    ellipse: ['Width', 'Height'],
    arc: ['Diameter', ''],
  };
  return (
    <>
      <div className="row-field">
        <label htmlFor="line-new">Add</label>
        <Form.Select
          id="line-new"
          size="sm"
          value={figure}
          onChange={({ target: { value } }) => setFigure(value as typeof figure)}
        >
          <option value="">nothing</option>
          {FIGURES.map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </Form.Select>
      </div>
      {figure && (
        <>
          {length('x', figure === 'ellipse' || figure === 'arc' ? 'Middle: right' : 'From: right')}
          {length('y', 'Down')}
          {length('width', words[figure][0] ?? '')}
          {figure !== 'arc' && length('height', words[figure][1] ?? '')}
          {figure === 'arc' && angle('from', 'Begins at')}
          {figure === 'arc' && angle('through', 'Goes through')}
          <div className="row-field">
            <label htmlFor="line-new-is">It is</label>
            <Form.Select
              id="line-new-is"
              size="sm"
              value={meaning}
              onChange={({ target: { value } }) => setMeaning(value as Meaning)}
            >
              {view.meanings.map((own) => (
                <option key={own.meaning} value={own.meaning}>
                  {own.name}
                </option>
              ))}
            </Form.Select>
          </div>
          <div className="trace-hands">
            <Tool
              label="add it"
              onUse={() => void mending.keep({ step: 'add', figure: made(), meaning })}
            />
          </div>
        </>
      )}
    </>
  );
}
