/** The copies of a sheet, to be chosen and moved. */
import { memo, useCallback, useEffect, useLayoutEffect, useRef } from 'react';

import type { InkedView, Placement } from '../api/generated/types';
import type { PartView } from '../api/views';
import { PlacedCopy, transformOf } from '../board/SheetDrawing';
import type { HandLayout, Offset } from './useHandLayout';

interface Props {
  placements: Placement[];
  /** Which run of sheets they are on. */
  run: number;
  parts: PartView[];
  /** What each copy wears of its own. */
  worn: InkedView[][] | undefined;
  hand: HandLayout;
  onHover: (name: string | null) => void;
}

interface Drag {
  /** The copy under the pointer. */
  at: number;
  from: DOMPoint;
  to: Offset;
  moved: boolean;
  scale: number;
}

/** Pixels at which a copy is drawn to a line. */
const SNAP = 7;

export function Copies({ placements, run, parts, worn, hand, onHover }: Props) {
  const layer = useRef<SVGGElement>(null);
  const moving = useRef<SVGGElement>(null);
  const drag = useRef<Drag | null>(null);
  const frame = useRef(0);
  const { chosen, trial } = hand;

  const local = (event: { clientX: number; clientY: number }) => {
    const matrix = layer.current?.getScreenCTM()?.inverse();
    return new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
  };
  const shift = ({ x, y }: Offset) =>
    moving.current?.setAttribute('transform', `translate(${x} ${y})`);

  const start = (event: React.PointerEvent, at: number) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const more = event.shiftKey || event.ctrlKey || event.metaKey;
    if (more) {
      const next = new Set(chosen);
      if (!next.delete(at)) next.add(at);
      hand.choose(next);
      return;
    }
    if (!chosen.has(at)) hand.choose([at]);
    const scale = layer.current?.getScreenCTM()?.a ?? 1;
    drag.current = { at, from: local(event), to: { x: 0, y: 0 }, moved: false, scale };
    layer.current?.setPointerCapture(event.pointerId);
  };
  const move = (event: React.PointerEvent) => {
    const held = drag.current;
    if (!held) return;
    event.stopPropagation();
    const at = local(event);
    held.to = { x: at.x - held.from.x, y: at.y - held.from.y };
    if (!held.moved && Math.hypot(held.to.x, held.to.y) * held.scale < 3) return;
    held.moved = true;
    cancelAnimationFrame(frame.current);
    frame.current = requestAnimationFrame(() => {
      shift(held.to);
      hand.try(held.to, event.altKey ? 0 : SNAP / held.scale);
    });
  };
  const up = (event: React.PointerEvent) => {
    const held = drag.current;
    drag.current = null;
    cancelAnimationFrame(frame.current);
    if (!held) return;
    event.stopPropagation();
    if (held.moved) {
      const snap = event.altKey ? 0 : SNAP / held.scale;
      void hand.act({ act: 'move', x: held.to.x, y: held.to.y, snap });
    } else if (chosen.size > 1) hand.choose([held.at]);
  };
  const cancel = () => {
    drag.current = null;
    shift({ x: 0, y: 0 });
    hand.drop();
  };

  // The same function for every copy and every time, so that copies are not drawn again.
  const latest = useRef(start);
  useLayoutEffect(() => {
    latest.current = start;
  });
  const down = useCallback(
    (event: React.PointerEvent, at: number) => latest.current(event, at),
    [],
  );

  // Where the server has drawn the copies to lines, they are shown there.
  useEffect(() => {
    const held = drag.current;
    const first = [...chosen].find((at) => placements[at] && !placements[at].locked);
    if (!held || first === undefined) return;
    const was = placements[first];
    const is = trial?.kept.runs[run]?.placements[first];
    if (!was || !is) return;
    const drawn = { x: is.x - was.x, y: is.y - was.y };
    const away = Math.hypot(drawn.x - held.to.x, drawn.y - held.to.y);
    if (away * held.scale < 2 * SNAP) shift(drawn);
  }, [trial, chosen, placements, run]);
  useLayoutEffect(() => {
    // A layout that was kept has its copies where they belong.
    shift({ x: 0, y: 0 });
  }, [placements]);

  const rest = placements.map((placement, at) => ({ placement, at }));
  const chosenOnes = rest.filter(({ at }) => chosen.has(at));
  const handled = ({ placement, at }: (typeof rest)[number], isChosen: boolean) => (
    <Handled
      key={at}
      {...{ placement, at, onHover, parts, isChosen }}
      worn={worn?.[at]}
      onDown={down}
    />
  );
  return (
    <g
      ref={layer}
      className="copies"
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={cancel}
    >
      {rest.filter(({ at }) => !chosen.has(at)).map((copy) => handled(copy, false))}
      <g ref={moving} className="chosen-copies">
        {chosenOnes.map((copy) => handled(copy, true))}
        {chosenOnes.map(({ placement, at }) => (
          <path
            key={at}
            className="chosen-outline"
            d={parts[placement.part]?.outline}
            transform={transformOf(placement, parts[placement.part])}
          />
        ))}
      </g>
    </g>
  );
}

interface HandledProps {
  placement: Placement;
  at: number;
  parts: PartView[];
  worn: InkedView[] | undefined;
  isChosen: boolean;
  onHover: (name: string | null) => void;
  onDown: (event: React.PointerEvent, at: number) => void;
}

/** The element of a copy, by its place. */
export const copyId = (at: number) => `copy-${at}`;

/** Drawn again only when the copy itself has changed: a drag moves hundreds of others past nothing. */
const Handled = memo(
  function Handled({ placement, at, parts, worn, isChosen, onHover, onDown }: HandledProps) {
    const name = parts[placement.part]?.name ?? '';
    return (
      <g
        className={`handled${placement.locked ? ' is-locked' : ''}`}
        data-copy={at}
        id={copyId(at)}
        role="option"
        aria-selected={isChosen}
        aria-label={`${name}, copy ${at + 1}${placement.locked ? ', locked' : ''}`}
        tabIndex={-1}
        onPointerDown={(event) => onDown(event, at)}
        onPointerEnter={() => onHover(placement.locked ? `${name}, locked` : name)}
        onPointerLeave={() => onHover(null)}
      >
        <PlacedCopy placement={placement} name="all-" part={parts[placement.part]} worn={worn} />
        {placement.locked && (
          <path
            className="lock-sign"
            d={parts[placement.part]?.outline}
            transform={transformOf(placement, parts[placement.part])}
          />
        )}
      </g>
    );
  },
  (before, after) =>
    before.placement === after.placement &&
    before.at === after.at &&
    before.isChosen === after.isChosen &&
    before.parts === after.parts &&
    before.worn === after.worn &&
    before.onDown === after.onDown,
);
