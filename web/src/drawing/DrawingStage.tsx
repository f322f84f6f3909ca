/** Form of a piece whose lines were drawn in another program: how large it is, and what each line is. */
import { useState } from 'react';

import { set } from '../api/fields';
import type { DrawingView, LineDrawing } from '../api/generated/types';
import { FigureField } from '../card/FigureField';
import { Rows, SpecCard } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { BackingRows } from '../form/BackingRows';
import { CardRows } from '../form/CardRows';
import type { StageProps } from '../job/StageProps';
import { BringDrawing } from './BringDrawing';
import './drawing.css';
import { DrawingBoard } from './DrawingBoard';
import { KeyRows } from './KeyRows';
import { ScaleRows } from './ScaleRows';

interface Props {
  stage: StageProps;
  own: LineDrawing;
  view: DrawingView;
}

export function DrawingStage({ stage, own, view }: Props) {
  const { session, piece, workshop, unit, notice } = stage;
  const [lit, setLit] = useState<string | null>(null);
  const [isMeasuring, setMeasuring] = useState(false);
  const [ends, setEnds] = useState<[number, number][]>([]);
  const { flat } = piece;
  const stock = workshop.stocks[session.own.stock];
  const at = (name: string) => session.at(`form.drawing.${name}`);
  const hasDoubles = flat.drawing?.order.some((words) => words.includes('on other')) ?? false;
  return (
    <main className="stage">
      <DrawingBoard
        {...{ stage, view, lit, ends }}
        isMeasuring={isMeasuring}
        onEnd={(end) => setEnds((before) => [...(before.length > 1 ? [] : before), end])}
      />
      <SpecCard
        title={own.origin.name || piece.name}
        subtitle={stock ? `${stock.name}, ${stock.caliper} mm` : session.own.stock}
        notice={notice}
        action={
          <BringDrawing
            label="Bring it in again"
            onBrought={({ drawing }) => {
              setEnds([]);
              // What the rows were keeps its meaning; new rows are guessed.
              const key = { ...drawing.key, ...own.key };
              void session.keep(
                set(at('lines'), drawing.lines),
                set(at('origin'), drawing.origin),
                set(at('key'), key),
              );
            }}
          />
        }
      >
        <ScaleRows
          {...{ session, view, unit, ends }}
          isMeasuring={isMeasuring}
          onMeasure={(is) => {
            setMeasuring(is);
            setEnds([]);
          }}
        />
        <KeyRows {...{ session, own, view }} onLit={setLit} />
        <Rows title="Put in order">
          {view.order.map((words) => (
            <p key={words} className="order-line">
              {words}
            </p>
          ))}
          {hasDoubles && (
            <SwitchField
              label="Lines on others"
              value={own.doubles ?? 'asked'}
              choices={[
                { value: 'once', label: 'an accident' },
                { value: 'passes', label: 'more passes' },
              ]}
              onChoose={(value) => void session.keep(set(at('doubles'), value))}
            />
          )}
          {flat.figures.map((figure) => (
            <FigureField key={figure.field} figure={figure} session={session} unit={unit} />
          ))}
        </Rows>
        <BackingRows session={session} workshop={workshop} unit={unit} />
        <CardRows stage={stage} />
      </SpecCard>
    </main>
  );
}
