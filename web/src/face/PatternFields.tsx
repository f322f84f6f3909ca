/** What a pattern repeats, how large, and how far from each other. */
import { useState } from 'react';

import { api, Failure } from '../api/client';
import type { Motif } from '../api/generated/types';
import { ChoiceField } from '../card/ChoiceField';
import { FileButton } from '../card/FileButton';
import { SwitchField } from '../card/SwitchField';
import type { PieceSession } from '../job/pieces';
import { set } from '../api/fields';
import { FIGURES, useFields, type FieldProps } from './FigureFields';
import { SetIn } from './SetIn';
import { Words } from './Words';
import type { PatternLayer } from './layers';
import { ART } from '../drawing/kinds';

export function PatternFields({ layer, ...props }: FieldProps<PatternLayer>) {
  const { keep, figure, colour } = useFields(props);
  const { grid } = layer;
  const motif: Motif = layer.motif_of ?? { of: 'figure' };
  const { session, path } = props;
  const isStriped = motif.of === 'figure' && layer.figure === 'line';
  const isStarry = layer.figure === 'polygon' || layer.figure === 'star';
  const repeat = (chosen: string) => {
    const figure = FIGURES.find(({ value }) => value === chosen)?.value;
    if (chosen === 'word') void session.keep(...repeated(path, WORD, WORD_SIDES));
    else if (figure && motif.of === 'figure') keep('figure', figure);
    else if (figure)
      void session.keep(
        set(`${path}.figure`, figure),
        ...repeated(path, { of: 'figure' }, [2.5, 2.5], [8, 7]),
      );
  };
  return (
    <>
      <ChoiceField
        label="Motif"
        value={motif.of === 'figure' ? layer.figure : motif.of}
        choices={[
          ...FIGURES.map(({ value, motif }) => ({ value, label: motif })),
          { value: 'word', label: 'word' },
          ...(motif.of === 'picture' ? [{ value: motif.of, label: motif.origin.name }] : []),
        ]}
        onChoose={repeat}
      />
      <MotifPicture {...{ session, path }} />
      {motif.of === 'word' && (
        <>
          <Words words={motif.words} session={session} path={`${path}.motif_of`} />
          <SetIn
            path={`${path}.motif_of`}
            typeface={motif.typeface}
            own={motif.own_typeface ?? null}
            session={session}
          />
        </>
      )}
      {motif.of !== 'picture' && colour('colour', 'Colour', layer.colour)}
      {!isStriped && figure('motif.0', 'Motif width', layer.motif[0])}
      {figure('motif.1', isStriped ? 'Stripe width' : 'Motif height', layer.motif[1])}
      {motif.of === 'figure' && isStarry && figure('points', 'Points', layer.points, 'count')}
      <SwitchField
        label="Spread"
        value={grid.by}
        choices={[
          { value: 'pitch', label: 'at a pitch' },
          { value: 'count', label: 'rows and columns' },
        ]}
        onChoose={(by) => keep('grid', { by, value: by === 'pitch' ? [8, 7] : [6, 8] })}
      />
      {!isStriped &&
        figure(
          'grid.value.0',
          grid.by === 'pitch' ? 'Pitch across' : 'Columns',
          grid.value[0],
          grid.by === 'count' ? 'count' : undefined,
        )}
      {figure(
        'grid.value.1',
        grid.by === 'pitch' ? 'Pitch down' : 'Rows',
        grid.value[1],
        grid.by === 'count' ? 'count' : undefined,
      )}
      <SwitchField
        label="Rows"
        value={layer.staggered ? 'staggered' : 'straight'}
        choices={[
          { value: 'straight', label: 'straight' },
          { value: 'staggered', label: 'staggered' },
        ]}
        onChoose={(how) => keep('staggered', how === 'staggered')}
      />
      <SwitchField
        label="Every second row"
        value={layer.turning ? 'turned' : 'same'}
        choices={[
          { value: 'same', label: 'the same' },
          { value: 'turned', label: 'turned round' },
        ]}
        onChoose={(how) => keep('turning', how === 'turned')}
      />
    </>
  );
}

/** What a pattern of words starts with, its sides in mm, and how far its motifs stand apart. */
const WORD: Motif = { of: 'word', words: 'Aptum', typeface: 'plain' };
const WORD_SIDES: [number, number] = [18, 5];
const APART: [number, number] = [4, 4];

/** What repeats something else: motifs so large, and so far from each other. */
const repeated = (
  path: string,
  motif: Motif,
  sides: [number, number],
  pitch: [number, number] = [sides[0] + APART[0], sides[1] + APART[1]],
) => [
  set(`${path}.motif_of`, motif),
  set(`${path}.motif`, sides),
  set(`${path}.grid`, { by: 'pitch', value: pitch }),
];

/** The longer side of a picture that is repeated, mm. */
const LONGER = 14;

/** A picture or a drawing that is brought in to be repeated. */
function MotifPicture({ session, path }: { session: PieceSession; path: string }) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const bring = async (file: File) => {
    setTrouble(null);
    try {
      const { id, pixels, drawn } = await api.addBlob(file, 1);
      const origin = { name: file.name.slice(0, 200), source: '', licence: '', note: '' };
      const scale = LONGER / Math.max(...pixels);
      const sides = pixels.map((side) => Math.max(Math.round(side * scale * 10) / 10, 0.2));
      const motif: Motif = { of: 'picture', blob: id, pixels, drawn, origin };
      await session.keep(...repeated(path, motif, [sides[0] ?? LONGER, sides[1] ?? LONGER]));
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(`${file.name}: ${error.message}`);
    }
  };
  return (
    <>
      <FileButton
        label="Repeat a picture …"
        name="Picture to repeat"
        accept={ART}
        onChoose={(file) => void bring(file)}
      />
      {trouble && (
        <p className="lay-note lay-trouble" role="alert">
          {trouble}
        </p>
      )}
    </>
  );
}
