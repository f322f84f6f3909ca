/** A line added by figures, counted from the top left of the piece. */
import { useState } from 'react';
import { Form } from 'react-bootstrap';

import type { AddedLine, DrawingView, Meaning, UnitInfo } from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import { Tool } from './Tool';
import type { Mending } from './useMending';

interface Props {
  view: DrawingView;
  unit: UnitInfo;
  mending: Mending;
}

const FIGURES = ['line', 'rectangle', 'ellipse', 'arc'] as const;

export function AddLine({ view, unit, mending }: Props) {
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
