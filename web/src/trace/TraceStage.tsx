/** Form of a piece whose outline is traced from a picture. */
import { useState } from 'react';

import { add, set } from '../api/fields';
import type { Traced, TracedView } from '../api/generated/types';
import { FigureField } from '../card/FigureField';
import { Rows, SpecCard } from '../card/SpecCard';
import { BackingRows } from '../form/BackingRows';
import { CardRows } from '../form/CardRows';
import { SetFree } from '../form/SetFree';
import type { StageProps } from '../job/StageProps';
import { BorderRows } from './BorderRows';
import { MendRows } from './MendRows';
import { PrintedBorder } from './PrintedBorder';
import { mendOf, partOf, type Tool } from './tools';
import './trace.css';
import { TraceBoard } from './TraceBoard';
import { TraceRows } from './TraceRows';
import { useLook } from './useLook';

interface Props {
  stage: StageProps;
  own: Traced;
  view: TracedView;
}

export function TraceStage({ stage, own, view }: Props) {
  const { session, piece, workshop, unit, notice } = stage;
  const [tool, setTool] = useState<Tool>('look');
  const [inHand, setInHand] = useState<string | null>(null);
  const { look, onTry, drop } = useLook(own, session.job.unit);
  const stock = workshop.stocks[session.own.stock];
  const width = piece.flat.figures.find((one) => one.field === session.at('form.traced.width'));
  const done = (points: [number, number][]) => {
    const at = (name: string) => session.at(`form.traced.${name}`);
    const mend = mendOf(tool, points);
    if (mend) {
      void session.keep(add(at('mends'), mend));
      return;
    }
    setTool('look');
    const part = tool === 'part' ? partOf(points) : null;
    if (part) void session.keep(set(at('trace.part'), part));
    if (tool === 'around') void session.keep(set(at('trace.around'), points[0]));
    if (tool === 'hole') {
      const rule = own.border.holes === 'closed' ? 'kept' : 'closed';
      void session.keep(add(at('border.each'), { at: points[0], rule }));
    }
  };
  return (
    <main className="stage">
      <TraceBoard
        stage={stage}
        traced={view}
        tried={look?.seen ? look.seen.line : null}
        tool={tool}
        onTool={done}
        inHand={inHand}
        isCard={own.card !== null && own.card !== undefined}
      />
      <SpecCard
        title="Outline of a picture"
        subtitle={stock ? `${stock.name}, ${stock.caliper} mm` : session.own.stock}
        notice={notice}
      >
        <Rows title="Size">
          {width && (
            <FigureField
              figure={width}
              session={session}
              unit={unit}
              onFocus={(isFocused) => setInHand(isFocused ? width.field : null)}
            />
          )}
        </Rows>
        <TraceRows
          {...{ stage, own, view, unit, look, onTry, tool }}
          onDrop={drop}
          onTool={setTool}
          onInHand={setInHand}
        />
        <BorderRows {...{ stage, own, view, unit, tool }} onTool={setTool} />
        <PrintedBorder {...{ stage, unit }} ends={view.printed_ends} />
        <MendRows {...{ session, own, view, tool }} onTool={setTool} />
        <BackingRows session={session} workshop={workshop} unit={unit} />
        <CardRows stage={stage} />
        {!own.card && <SetFree session={session} name={own.origin.name || piece.name} />}
      </SpecCard>
    </main>
  );
}
