/** Form of a piece whose lines were drawn in another program: how large it is, and what each line is. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import type { DrawingView, LineDrawing } from '../api/generated/types';
import { FigureField } from '../card/FigureField';
import { Rows, SpecCard } from '../card/SpecCard';
import { SwitchField } from '../card/SwitchField';
import { BackingRows } from '../form/BackingRows';
import { FoldDesk } from '../fold/FoldDesk';
import { FoldPane } from '../fold/FoldPane';
import { CardRows } from '../form/CardRows';
import type { StageProps } from '../job/StageProps';
import { token } from '../style/token';
import { BringDrawing } from './BringDrawing';
import { CreaseRows, PanelRows } from './CreaseRows';
import './drawing.css';
import { type BoardTool, DrawingBoard } from './DrawingBoard';
import { KeyRows } from './KeyRows';
import { HandRows } from './HandRows';
import { ScaleRows } from './ScaleRows';
import { useMending } from './useMending';

interface Props {
  stage: StageProps;
  own: LineDrawing;
  view: DrawingView;
}

export function DrawingStage({ stage, own, view }: Props) {
  const { session, piece, workshop, unit, notice } = stage;
  const [lit, setLit] = useState<string | null>(null);
  const [panel, setPanel] = useState<string | null>(null);
  const [tool, setTool] = useState<BoardTool>('look');
  const [ends, setEnds] = useState<[number, number][]>([]);
  const mending = useMending(session, own, view, session.job.unit, tool === 'mend');
  const { flat } = piece;
  const stock = workshop.stocks[session.own.stock];
  const at = (name: string) => session.at(`form.drawing.${name}`);
  return (
    <main className="stage">
      <FoldDesk
        board={
          <DrawingBoard
            {...{ stage, view, lit, ends, tool, panel, mending }}
            onPanel={setPanel}
            onPress={(place, reach) => {
              if (tool === 'mend') void mending.press(place, reach);
              else if (tool === 'measure')
                setEnds((before) => [...(before.length > 1 ? [] : before), place]);
              else {
                void session.keep(set(at('root'), place));
                setTool('look');
              }
            }}
          />
        }
        folded={
          view.creases.length > 0 && (
            <FoldPane
              form={session.own.form}
              stock={session.own.stock}
              colour={stock?.colour ?? token('card-bare')}
              parts={flat.parts}
              lit={panel}
              onLit={setPanel}
            />
          )
        }
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
                set(at('origin.name'), drawing.origin.name),
                set(at('key'), key),
                // Steps by hand name lines by their numbers, which are others now.
                ...(own.mends?.length ? [set(at('mends'), null)] : []),
              );
            }}
          />
        }
      >
        <ScaleRows
          {...{ session, view, unit, ends }}
          isMeasuring={tool === 'measure'}
          onMeasure={(is) => {
            setTool(is ? 'measure' : 'look');
            setEnds([]);
          }}
        />
        <KeyRows {...{ session, own, view }} onLit={setLit} />
        <CreaseRows
          {...{ session, own, view, unit }}
          isRooting={tool === 'root'}
          onRoot={(is) => setTool(is ? 'root' : 'look')}
          onLit={setPanel}
        />
        <PanelRows {...{ session, view }} onLit={setPanel} />
        <HandRows
          {...{ own, view, unit, mending }}
          isOn={tool === 'mend'}
          onScale={(scale) => void session.keep(set(at('scale'), scale))}
          onSwitch={(is) => setTool(is ? 'mend' : 'look')}
        />
        <Rows title="Put in order">
          {view.order.map(({ words, undo }) => (
            <div key={words} className="row-result">
              <span>{words}</span>
              {undo && (
                <Button
                  size="sm"
                  variant="link"
                  aria-label={`Leave as it was: ${words}`}
                  onClick={() => void session.keep(set(session.at(undo.field), undo.value))}
                >
                  leave as it was
                </Button>
              )}
            </div>
          ))}
          {!own.arcs && (
            <div className="row-result">
              <span>Arcs stay short sides</span>
              <Button
                size="sm"
                variant="link"
                onClick={() => void session.keep(set(at('arcs'), true))}
              >
                recognise arcs
              </Button>
            </div>
          )}
          {view.doubles > 0 && (
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
