/** Words: what they say, in which typeface, how large, and how they run. */
import { useEffect, useId, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { UnitInfo } from '../api/generated/types';
import { useMeta } from '../api/queries';
import type { PieceView } from '../api/views';
import { FigureField } from '../card/FigureField';
import { AmountField } from '../card/AmountField';
import { Problems } from '../card/Problems';
import { rove } from '../card/rove';
import { SwitchField } from '../card/SwitchField';
import { errorsOf } from '../job/StageProps';
import type { PieceSession } from '../job/pieces';
import { ColourField } from './ColourField';
import { OwnTypeface } from './OwnTypeface';
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

/** After so long a pause words are saved, ms. */
const PAUSE = 600;

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
      <Words {...{ layer, session, path }} />
      <Typefaces
        chosen={layer.own_typeface ? '' : layer.typeface}
        onChoose={(id) =>
          void session.keep(
            set(`${path}.typeface`, id),
            ...(layer.own_typeface ? [set(`${path}.own_typeface`, null)] : []),
          )
        }
      />
      <OwnTypeface {...{ layer, session }} onChoose={(own) => keep('own_typeface', own)} />
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

function Words({ layer, session, path }: Pick<Props, 'layer' | 'session' | 'path'>) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const pause = useRef<number | undefined>(undefined);
  useEffect(() => () => window.clearTimeout(pause.current), []);
  const errors = errorsOf(session, `${path}.words`);
  const finish = async (words: string) => {
    window.clearTimeout(pause.current);
    if (await session.keep(set(`${path}.words`, words))) {
      setTyped((now) => (now === words ? null : now));
    }
  };
  return (
    <div className="words">
      <label htmlFor={id}>Words</label>
      <textarea
        id={id}
        rows={3}
        value={typed ?? layer.words}
        spellCheck={false}
        data-pending={typed !== null || undefined}
        onChange={(event) => {
          const words = event.target.value;
          setTyped(words);
          session.propose(set(`${path}.words`, words));
          window.clearTimeout(pause.current);
          pause.current = window.setTimeout(() => void finish(words), PAUSE);
        }}
        onBlur={() => {
          if (typed !== null) void finish(typed);
        }}
      />
      {(session.own.list?.columns ?? []).length > 0 && (
        <div className="columns" role="group" aria-label="Put a column in">
          {session.own.list?.columns.map((name) => (
            <Button
              key={name}
              variant="plain"
              aria-label={`Put ${name} in`}
              onClick={() => {
                const words = `${typed ?? layer.words}{${name}}`;
                setTyped(words);
                void finish(words);
              }}
            >
              {`{${name}}`}
            </Button>
          ))}
        </div>
      )}
      <Problems errors={errors} onApply={() => undefined} />
    </div>
  );
}

function Typefaces({ chosen, onChoose }: { chosen: string; onChoose: (id: string) => void }) {
  const typefaces = useMeta().data?.typefaces ?? [];
  const first = typefaces.some(({ id }) => id === chosen) ? chosen : typefaces[0]?.id;
  return (
    <div className="typefaces" role="radiogroup" aria-label="Typeface">
      {typefaces.map(({ id, character, family, sample, sample_size: [width, height] }) => (
        <Button
          key={id}
          variant="bare"
          role="radio"
          aria-checked={id === chosen}
          tabIndex={id === first ? 0 : -1}
          onKeyDown={rove((at) => onChoose(typefaces[at]?.id ?? chosen))}
          aria-label={`${character}, ${family}`}
          title={family}
          onClick={() => onChoose(id)}
        >
          <svg
            viewBox={`${-width / 2 - 1} ${-height / 2 - 3} ${width + 2} ${height + 8}`}
            aria-hidden="true"
          >
            <path d={sample} />
          </svg>
        </Button>
      ))}
    </div>
  );
}
