/** The steps between a picture as it came and as it is printed: switched on and off, changed, taken away. */
import { type ReactNode, useState } from 'react';
import { Button, Form } from 'react-bootstrap';

import type { DrawingParts, ReworkStep } from '../api/generated/types';
import { keysOf } from '../card/keys';
import type { Tool } from './BeforePane';

interface Props {
  steps: ReworkStep[];
  parts: DrawingParts | null;
  tool: Tool | null;
  onSteps: (steps: ReworkStep[]) => void;
  onTool: (tool: Tool | null) => void;
}

export function ReworkSteps({ steps, parts, tool, onSteps, onTool }: Props) {
  if (steps.length === 0)
    return <p className="rework-none">Nothing is done to it yet: it is printed as it came.</p>;
  const keys = keysOf(steps, nameOf);
  return (
    <ol className="rework-steps" aria-label="Steps">
      {steps.map((step, at) => {
        const name = nameOf(step);
        return (
          <li key={keys[at]} className={step.off ? 'is-off' : ''}>
            <Form.Check
              type="switch"
              id={`rework-${at}`}
              label={name}
              checked={step.off !== true}
              onChange={(event) => onSteps(steps.with(at, { ...step, off: !event.target.checked }))}
            />
            <div className="rework-figures">
              <StepFigures
                {...{ step, at, parts, tool, onTool }}
                onStep={(next) => onSteps(steps.with(at, next))}
              />
            </div>
            <Button
              variant="plain"
              aria-label={`Take away: ${name}`}
              onClick={() => onSteps(steps.filter((_, other) => other !== at))}
            >
              ×
            </Button>
          </li>
        );
      })}
    </ol>
  );
}

function nameOf(step: ReworkStep): string {
  switch (step.kind) {
    case 'background':
      return 'Drop the background';
    case 'specks':
      return 'Erase specks';
    case 'rectangle':
      return 'Erase a rectangle';
    case 'stroke':
      return 'Erase along a stroke';
    case 'crop':
      return 'Crop to what is left';
    case 'part':
      return `Part ${step.part + 1}`;
  }
}

interface FiguresProps {
  step: ReworkStep;
  at: number;
  parts: DrawingParts | null;
  tool: Tool | null;
  onStep: (step: ReworkStep) => void;
  onTool: (tool: Tool | null) => void;
}

function StepFigures({ step, at, parts, tool, onStep, onTool }: FiguresProps) {
  const isAimed = tool?.kind === 'point' && tool.step === at;
  switch (step.kind) {
    case 'background':
      return (
        <>
          <Named name="from">
            <Form.Select
              size="sm"
              aria-label="Where the background begins"
              value={isAimed ? 'point' : step.from.by}
              onChange={({ target: { value } }) => {
                if (value === 'point') {
                  onTool({ kind: 'point', step: at });
                  return;
                }
                onTool(null);
                onStep({ ...step, from: { by: value === 'edges' ? 'edges' : 'everywhere' } });
              }}
            >
              <option value="edges">its edges inwards</option>
              <option value="everywhere">everywhere</option>
              <option value="point">a point</option>
            </Form.Select>
          </Named>
          {(step.from.by === 'point' || isAimed) && (
            <Button
              variant="plain"
              aria-pressed={isAimed}
              onClick={() => onTool(isAimed ? null : { kind: 'point', step: at })}
            >
              point at it
            </Button>
          )}
          <Named name="colour">
            <Form.Select
              size="sm"
              aria-label="The colour of the background"
              value={step.colour == null ? 'found' : 'own'}
              onChange={({ target: { value } }) =>
                onStep({ ...step, colour: value === 'own' ? '#ffffff' : null })
              }
            >
              <option value="found">found there</option>
              <option value="own">this one</option>
            </Form.Select>
          </Named>
          {step.colour != null && (
            <Form.Control
              type="color"
              aria-label="Background"
              value={step.colour}
              onChange={({ target: { value } }) => onStep({ ...step, colour: value })}
            />
          )}
          <Amount
            name="off by up to"
            unit="%"
            value={step.tolerance}
            onKeep={(tolerance) => onStep({ ...step, tolerance })}
          />
          <Amount
            name="soft edge"
            unit="pixels"
            value={step.soft}
            onKeep={(soft) => onStep({ ...step, soft })}
          />
        </>
      );
    case 'specks':
      return (
        <Amount
          name="of fewer than"
          unit="pixels"
          value={step.under}
          onKeep={(under) => onStep({ ...step, under: Math.round(under) })}
        />
      );
    case 'rectangle':
      return ['left', 'top', 'right', 'bottom'].map((name, side) => {
        const [corner, axis] = [side < 2 ? 0 : 1, side % 2] as [0 | 1, 0 | 1];
        return (
          <Amount
            key={name}
            name={name}
            unit="%"
            value={percent(step.corners[corner][axis])}
            onKeep={(share) => {
              const corners = structuredClone(step.corners);
              corners[corner][axis] = share / 100;
              onStep({ ...step, corners });
            }}
          />
        );
      });
    case 'stroke':
      return (
        <Amount
          name="wide"
          unit="% of its longer side"
          value={percent(step.width)}
          onKeep={(share) => onStep({ ...step, width: share / 100 })}
        />
      );
    case 'crop':
      return null;
    case 'part': {
      const own = parts?.parts[step.part];
      return (
        <>
          <Form.Check
            id={`part-${at}`}
            label="left out"
            checked={step.hidden === true}
            onChange={(event) => onStep({ ...step, hidden: event.target.checked })}
          />
          {step.hidden !== true && (
            <>
              {(['to the right', 'down'] as const).map((name, axis) => (
                <Amount
                  key={name}
                  name={name}
                  unit="%"
                  value={percent(step.moved[axis as 0 | 1])}
                  onKeep={(share) => {
                    const moved: [number, number] = [...step.moved];
                    moved[axis as 0 | 1] = share / 100;
                    onStep({ ...step, moved });
                  }}
                />
              ))}
              {own?.is_picture !== true && (
                <Named name="colour">
                  <Form.Control
                    type="color"
                    aria-label={`Colour of part ${step.part + 1}`}
                    value={step.colour ?? own?.colour ?? '#000000'}
                    onChange={({ target: { value } }) => onStep({ ...step, colour: value })}
                  />
                </Named>
              )}
            </>
          )}
        </>
      );
    }
  }
}

const percent = (share: number) => Math.round(share * 1000) / 10;

function Named({ name, children }: { name: string; children: ReactNode }) {
  return (
    <label className="rework-figure">
      <span>{name}</span>
      {children}
    </label>
  );
}

interface AmountProps {
  name: string;
  unit: string;
  value: number;
  onKeep: (value: number) => void;
}

/** A number that is kept when it is entered; what is none stays until it is mended. */
function Amount({ name, unit, value, onKeep }: AmountProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const number = typed === null ? value : Number(typed.trim().replace(',', '.'));
  const isSound = typed === null || (typed.trim() !== '' && Number.isFinite(number));
  const finish = () => {
    if (typed === null || !isSound) return;
    setTyped(null);
    if (number !== value) onKeep(number);
  };
  return (
    <Named name={name}>
      <input
        className="figure"
        value={typed ?? String(value)}
        autoComplete="off"
        aria-invalid={!isSound}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === 'Enter') finish();
          else if (event.key === 'Escape') setTyped(null);
        }}
      />
      <small>{isSound ? unit : 'no number: type one such as 8'}</small>
    </Named>
  );
}
