/** The sheet on the drawing board, its copies handled by pointer and by keyboard. */
import { token } from '../style/token';
import { useMemo, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import type { TakenBy, UnitInfo, Workshop } from '../api/generated/types';
import type { Preview } from '../api/views';
import { Board } from '../board/Board';
import { SeenInks } from '../board/inks';
import { cardOfRun, partsOf, SheetDrawing } from '../board/SheetDrawing';
import type { JobSession } from '../job/useJobSession';
import { Copies, copyId } from './Copies';
import { SheetList } from './SheetList';
import type { HandLayout } from './useHandLayout';
import { WindowLegend } from './WindowLegend';

const PADDING = { left: 48, top: 44, right: 210, bottom: 22 };

interface Props {
  session: JobSession;
  preview: Preview;
  workshop: Workshop;
  unit: UnitInfo;
  run: number;
  onRun: (run: number) => void;
  hand: HandLayout;
  place: string | null;
  onWays: () => void;
}

interface Corner {
  x: number;
  y: number;
}

/** What an arrow key moves by, mm: with Shift ten times, with Alt a tenth. */
const STEP = (event: React.KeyboardEvent) => (event.shiftKey ? 10 : event.altKey ? 0.1 : 1);

export function SheetBoard(props: Props) {
  const { session, preview, workshop, unit, run, onRun, hand, place, onWays } = props;
  const [hovered, setHovered] = useState<string | null>(null);
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [marquee, setMarquee] = useState<{ from: Corner; to: Corner } | null>(null);
  const ground = useRef<SVGGElement>(null);
  const { job } = session;
  const { sheet } = preview;
  const parts = partsOf(preview);
  const [width, height] = sheet.page;
  const placements = sheet.layout.runs[run]?.placements ?? [];
  const card = workshop.stocks[cardOfRun(sheet.layout.runs[run], parts)];
  const shine = card?.shine ?? 'opaque';
  const seenInks = useMemo(() => ({ only: null, shine }), [shine]);

  const local = (event: React.PointerEvent): Corner => {
    const matrix = ground.current?.getScreenCTM()?.inverse();
    return new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
  };
  const down = (event: React.PointerEvent) => {
    if (!event.shiftKey) {
      hand.choose([]);
      return;
    }
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const at = local(event);
    setMarquee({ from: at, to: at });
  };
  const move = (event: React.PointerEvent) => {
    if (!marquee) return;
    event.stopPropagation();
    setMarquee({ ...marquee, to: local(event) });
  };
  const up = () => {
    if (!marquee) return;
    const { x, y, width: w, height: h } = boxOf(marquee);
    const drawn = [...(ground.current?.querySelectorAll<SVGGElement>('[data-copy]') ?? [])];
    const inside = drawn.filter((copy) => {
      const box = copy.getBBox();
      return box.x >= x && box.y >= y && box.x + box.width <= x + w && box.y + box.height <= y + h;
    });
    hand.choose(inside.map((copy) => Number(copy.dataset['copy'])));
    setMarquee(null);
  };

  const key = (event: React.KeyboardEvent): boolean => {
    const count = placements.length;
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key.toLowerCase() === 'a') hand.choose(placements.keys());
    else if (command) return false;
    else if (event.key === '[' || event.key === ']') {
      const last = [...hand.chosen].at(-1) ?? (event.key === ']' ? -1 : count);
      if (count > 0) hand.choose([(last + (event.key === ']' ? 1 : -1) + count) % count]);
    } else if (hand.chosen.size === 0) return false;
    else if (event.key in ARROWS) {
      const { x, y } = ARROWS[event.key as keyof typeof ARROWS];
      const step = STEP(event);
      void hand.act({ act: 'move', x: x * step, y: y * step, snap: 0 });
    } else if (event.key.toLowerCase() === 'r')
      void hand.act({ act: 'turn', degrees: event.shiftKey ? -90 : 90 });
    else if (event.key.toLowerCase() === 'l')
      void hand.act({ act: isLocked(hand, placements) ? 'unlock' : 'lock' });
    else if (event.key === 'Delete' || event.key === 'Backspace') void hand.act({ act: 'remove' });
    else if (event.key === 'Escape') hand.choose([]);
    else return false;
    return true;
  };

  return (
    <div className={`board-wrap${session.isCurrent ? '' : ' is-stale'}`}>
      <Board
        label={`Sheet of ${job.name}, ${sheet.page_text}`}
        box={{ x: 0, y: 0, width, height }}
        padding={PADDING}
        unit={unit}
        hint={marquee ? null : hovered}
        onKey={key}
        holds={{ active: activeOf(hand) }}
        drawing={
          <g ref={ground} onPointerDown={down} onPointerMove={move} onPointerUp={up}>
            <SeenInks value={seenInks}>
              <SheetDrawing
                parts={parts}
                sheet={sheet}
                run={run}
                colour={card?.colour ?? token('card-bare')}
                shown="all"
                hidden={hidden}
                onHover={setHovered}
                place={place}
                copies={
                  <Copies
                    placements={placements}
                    run={run}
                    parts={parts}
                    worn={sheet.worn[run]}
                    hand={hand}
                    onHover={setHovered}
                  />
                }
              />
            </SeenInks>
            {hand.trial?.guides.map(([from, to]) => (
              <path
                key={`${from.join()} ${to.join()}`}
                className="snap-guide"
                d={`M${from.join(' ')}L${to.join(' ')}`}
              />
            ))}
            {hand.clearance && hand.chosen.size > 0 && (
              <path
                className={`clearance-line${hand.clearance.is_enough ? '' : ' is-short'}`}
                d={`M${hand.clearance.from.join(' ')}L${hand.clearance.to.join(' ')}`}
              />
            )}
            {marquee && <rect className="marquee" {...boxOf(marquee)} />}
          </g>
        }
      >
        <WindowLegend
          taken={new Set<TakenBy>(sheet.taken.map((taken) => taken.by))}
          hidden={hidden}
          onToggle={(what) => {
            const next = new Set(hidden);
            if (!next.delete(what)) next.add(what);
            setHidden(next);
          }}
        />
        <SheetList
          sheet={sheet}
          parts={parts}
          stocks={workshop.stocks}
          picked={run}
          onPick={onRun}
        />
        {sheet.misfit && (
          <div className="misfit-note" role="status">
            <p>It does not fit anywhere on this sheet.</p>
            <Button size="sm" onClick={onWays}>
              Ways to fit
            </Button>
          </div>
        )}
      </Board>
    </div>
  );
}

/** The copy that was chosen last: where the keyboard is. */
const activeOf = (hand: HandLayout) => {
  const last = [...hand.chosen].at(-1);
  return last === undefined ? undefined : copyId(last);
};

const ARROWS = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

const isLocked = (hand: HandLayout, placements: { locked: boolean }[]) =>
  [...hand.chosen].every((at) => placements[at]?.locked);

const boxOf = ({ from, to }: { from: Corner; to: Corner }) => ({
  x: Math.min(from.x, to.x),
  y: Math.min(from.y, to.y),
  width: Math.abs(to.x - from.x),
  height: Math.abs(to.y - from.y),
});
