/** What shapes are drawn from, and how large they are; figures, as patterns have them too. */
import { set } from '../api/fields';
import type { Outlined, UnitInfo } from '../api/generated/types';
import { ChoiceField } from '../card/ChoiceField';
import { FigureField } from '../card/FigureField';
import { SwitchField } from '../card/SwitchField';
import type { PieceSession } from '../job/pieces';
import { ColourField } from './ColourField';
import type { ShapeLayer } from './layers';

export interface FieldProps<L> {
  layer: L;
  session: PieceSession;
  unit: UnitInfo;
  path: string;
}

export const FIGURES: { value: Outlined; shape: string; motif: string }[] = [
  { value: 'rectangle', shape: 'rectangle', motif: 'check' },
  { value: 'ellipse', shape: 'ellipse', motif: 'dot' },
  { value: 'polygon', shape: 'polygon', motif: 'polygon' },
  { value: 'star', shape: 'star', motif: 'star' },
  { value: 'heart', shape: 'heart', motif: 'heart' },
  { value: 'leaf', shape: 'leaf', motif: 'leaf' },
  { value: 'line', shape: 'line', motif: 'stripe' },
];

/** Sides that a shape starts with when it gets its own, mm. */
const SIDES: [number, number] = [30, 20];

export function useFields({ session, unit, path }: Omit<FieldProps<unknown>, 'layer'>) {
  const keep = (field: string, value: unknown) => void session.keep(set(`${path}.${field}`, value));
  const figure = (field: string, label: string, value: number, measured?: 'count' | 'angle') => (
    <FigureField
      key={field}
      figure={{
        field: `${path}.${field}`,
        label,
        value,
        ...(measured ? { text: String(value) } : {}),
      }}
      session={session}
      unit={unit}
      {...(measured ? { measured } : {})}
      least={measured === 'count' ? 1 : measured === 'angle' ? -360 : -100}
    />
  );
  const colour = (field: string, label: string, value: string) => (
    <ColourField
      label={label}
      colour={value}
      onTry={(colour) => session.propose(set(`${path}.${field}`, colour))}
      onKeep={(colour) => keep(field, colour)}
    />
  );
  return { keep, figure, colour };
}

export function ShapeFields({ layer, ...props }: FieldProps<ShapeLayer>) {
  const { keep, figure, colour } = useFields(props);
  const { size } = layer;
  return (
    <>
      {size.by !== 'inset' && (
        <ChoiceField
          label="Shape"
          value={layer.figure}
          choices={FIGURES.map(({ value, shape }) => ({ value, label: shape }))}
          onChoose={(chosen) => keep('figure', chosen)}
        />
      )}
      <SwitchField
        label="Size"
        value={size.by}
        choices={[
          { value: 'area', label: 'its area' },
          { value: 'sides', label: 'its own' },
          { value: 'inset', label: 'follows the edge' },
        ]}
        onChoose={(by) =>
          keep('size', by === 'area' ? { by } : by === 'sides' ? { by, mm: SIDES } : { by, mm: 3 })
        }
      />
      {size.by === 'sides' && figure('size.mm.0', 'Width', size.mm[0])}
      {size.by === 'sides' && figure('size.mm.1', 'Height', size.mm[1])}
      {size.by === 'inset' && figure('size.mm', 'In from the edge', size.mm)}
      {(layer.figure === 'polygon' || layer.figure === 'star') &&
        figure('points', 'Points', layer.points, 'count')}
      {layer.figure === 'rectangle' &&
        size.by !== 'inset' &&
        figure('rounding', 'Corner radius', layer.rounding)}
      <SwitchField
        label="Filled"
        value={layer.fill === null ? 'no' : 'yes'}
        choices={[
          { value: 'yes', label: 'filled' },
          { value: 'no', label: 'open' },
        ]}
        onChoose={(how) => keep('fill', how === 'yes' ? '#f3e3b3' : null)}
      />
      {layer.fill !== null && colour('fill', 'Fill', layer.fill)}
      {layer.fill !== null && (
        <SwitchField
          name="The fill"
          label="Whether the fill runs into another colour"
          value={layer.runs ? 'runs' : 'flat'}
          choices={[
            { value: 'flat', label: 'is even' },
            { value: 'runs', label: 'runs into another' },
          ]}
          onChoose={(how) => keep('runs', how === 'runs' ? { colour: '#ffffff', turn: 90 } : null)}
        />
      )}
      {layer.runs && colour('runs.colour', 'Into', layer.runs.colour)}
      {layer.runs && figure('runs.turn', 'Runs at', layer.runs.turn, 'angle')}
      <SwitchField
        label="Stripes"
        value={layer.stripes ? 'yes' : 'no'}
        choices={[
          { value: 'no', label: 'none' },
          { value: 'yes', label: 'striped' },
        ]}
        onChoose={(how) =>
          keep(
            'stripes',
            how === 'yes' ? { colour: '#ffffff', width: 2, pitch: 6, turn: 45 } : null,
          )
        }
      />
      {layer.stripes && (
        <>
          {colour('stripes.colour', 'Stripes in', layer.stripes.colour)}
          {figure('stripes.width', 'Stripe width', layer.stripes.width)}
          {figure('stripes.pitch', 'From stripe to stripe', layer.stripes.pitch)}
          {figure('stripes.turn', 'Stripes at', layer.stripes.turn, 'angle')}
        </>
      )}
      <SwitchField
        label="Outline"
        value={layer.line === null ? 'no' : 'yes'}
        choices={[
          { value: 'yes', label: 'outlined' },
          { value: 'no', label: 'none' },
        ]}
        onChoose={(how) => keep('line', how === 'yes' ? '#22302f' : null)}
      />
      {layer.line !== null && colour('line', 'Line', layer.line)}
      {layer.line !== null && figure('thickness', 'Line thickness', layer.thickness)}
    </>
  );
}
