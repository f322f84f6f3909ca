/** Form of a card that holds other pieces: what lies on it, how, and the card itself. */
import { useState } from 'react';

import type { Figure, Gathered, GatheredView } from '../api/generated/types';
import { Dimensions } from '../board/Dimensions';
import { FlatBoard } from '../board/FlatBoard';
import { FigureField } from '../card/FigureField';
import { Rows, SpecCard } from '../card/SpecCard';
import { BackingRows } from '../form/BackingRows';
import { CardRows } from '../form/CardRows';
import type { StageProps } from '../job/StageProps';
import { LaidRows } from './LaidRows';
import { MemberHandles } from './MemberHandles';
import { MemberRows } from './MemberRows';

interface Props {
  stage: StageProps;
  own: Gathered;
  view: GatheredView;
}

const PADDING = { left: 76, top: 40, right: 30, bottom: 84 };

export function GatheredStage({ stage, own, view }: Props) {
  const { session, piece, workshop, unit, notice } = stage;
  const [picked, setPicked] = useState<number | null>(null);
  const [inHand, setInHand] = useState<string | null>(null);
  const { flat } = piece;
  const [width, height] = flat.size;
  const stock = workshop.stocks[session.own.stock];
  const row = (figure: Figure) => (
    <FigureField
      key={figure.field}
      figure={figure}
      session={session}
      unit={unit}
      onFocus={(isFocused) => setInHand(isFocused ? figure.field : null)}
    />
  );
  return (
    <main className="stage">
      <FlatBoard
        stage={stage}
        label={`${piece.name}, ${flat.size_text}`}
        padding={PADDING}
        isPrinted
        overlay={(seen) => (
          <>
            <Dimensions
              dimensions={flat.dimensions}
              box={{ x: 0, y: 0, width, height }}
              view={seen}
              field={inHand}
            />
            <MemberHandles
              {...{ session, own, picked }}
              copies={view.copies}
              names={view.members}
              view={seen}
              onPick={setPicked}
            />
          </>
        )}
      />
      <SpecCard
        title={piece.name}
        subtitle={stock ? `${stock.name}, ${stock.caliper} mm` : session.own.stock}
        notice={notice}
      >
        <MemberRows {...{ stage, own, view }} />
        <LaidRows {...{ session, unit, own, view, picked }} />
        <Rows title="Card">{flat.figures.map(row)}</Rows>
        <BackingRows session={session} workshop={workshop} unit={unit} />
        <CardRows stage={stage} />
      </SpecCard>
    </main>
  );
}
