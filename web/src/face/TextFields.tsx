/** Words: what they say, in which typeface, how large, and how they run. */
import { set } from '../api/fields';
import type { UnitInfo } from '../api/generated/types';
import type { PieceView } from '../api/views';
import { FigureField } from '../card/FigureField';
import { AmountField } from '../card/AmountField';
import { SwitchField } from '../card/SwitchField';
import type { PieceSession } from '../job/pieces';
import { ColourField } from './ColourField';
import { SetIn } from './SetIn';
import { Words } from './Words';
import type { TextLayer } from './layers';

interface Props {
  layer: TextLayer;
  session: PieceSession;
  piece: PieceView;
  unit: UnitInfo;
  path: string;
}

/** What a size begins with when it is changed to another measure. */
const SIZES = { points: 18, em: 8, capitals: 5 };

export function TextFields({ layer, session, unit, path }: Props) {
  const keep = (field: string, value: unknown) => void session.keep(set(`${path}.${field}`, value));
  const { size } = layer;
  const figure = (field: string, label: string, value: number, isPlain = false) => (
    <FigureField
      figure={{
        field: `${path}.${field}`,
        label,
        value,
        ...(isPlain ? { text: String(value) } : {}),
      }}
      session={session}
      unit={unit}
      {...(isPlain ? { measured: 'amount' as const } : {})}
      least={-2000}
    />
  );
  return (
    <>
      <Words words={layer.words} session={session} path={path} />
      <SetIn {...{ path, session }} typeface={layer.typeface} own={layer.own_typeface ?? null} />
      <ColourField
        colour={layer.colour}
        onTry={(colour) => session.propose(set(`${path}.colour`, colour))}
        onKeep={(colour) => keep('colour', colour)}
      />
      <SwitchField
        label="Size"
        value={size.by}
        choices={[
          { value: 'area', label: 'fitted' },
          { value: 'points', label: 'points' },
          { value: 'em', label: unit.unit },
          { value: 'capitals', label: 'capitals' },
        ]}
        onChoose={(by) => keep('size', by === 'area' ? { by } : { by, value: SIZES[by] })}
      />
      {size.by === 'points' && figure('size.value', 'Points', size.value, true)}
      {size.by === 'em' && figure('size.value', 'Height of the type', size.value)}
      {size.by === 'capitals' && figure('size.value', 'Height of capitals', size.value)}
      <SwitchField
        label="Lines"
        value={layer.align}
        choices={[
          { value: 'left', label: 'left' },
          { value: 'centre', label: 'centred' },
          { value: 'right', label: 'right' },
        ]}
        onChoose={(align) => keep('align', align)}
      />
      <SwitchField
        label="Long lines"
        value={layer.wrapped ? 'wrapped' : 'whole'}
        choices={[
          { value: 'whole', label: 'stay whole' },
          { value: 'wrapped', label: 'are broken' },
        ]}
        onChoose={(how) => keep('wrapped', how === 'wrapped')}
      />
      <AmountField
        label="Line to line, in ems"
        value={layer.line_spacing}
        field={`${path}.line_spacing`}
        step={0.05}
        session={session}
      />
      <AmountField
        label="Between letters, in ems"
        value={layer.letter_spacing}
        field={`${path}.letter_spacing`}
        step={0.01}
        session={session}
      />
      <SwitchField
        label="Runs"
        value={layer.round === null ? 'straight' : 'round'}
        choices={[
          { value: 'straight', label: 'straight' },
          { value: 'round', label: 'round a circle' },
        ]}
        onChoose={(how) => keep('round', how === 'round' ? 20 : null)}
      />
      {layer.round !== null && <>{figure('round', 'Radius (below 0: inside)', layer.round)}</>}
    </>
  );
}
