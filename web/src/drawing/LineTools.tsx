/** Tools for the line, the node and the stretch that are taken. */
import { useState } from 'react';
import { Form } from 'react-bootstrap';

import type { DrawingView, LineMend, Meaning, Scale, UnitInfo } from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import { Result } from '../card/SpecCard';
import { Tool } from './Tool';
import type { Mending, Together } from './useMending';

interface Props {
  view: DrawingView;
  unit: UnitInfo;
  mending: Mending;
  onScale: (scale: Scale) => void;
}

export function LineTools({ view, unit, mending, onScale }: Props) {
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
