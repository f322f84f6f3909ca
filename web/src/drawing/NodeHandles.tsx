/** The line that is worked at, its nodes and the handles of the one that is taken: dragged, or nudged with the keys. */
import { useRef, useState } from 'react';

import type { PickedView } from '../api/generated/types';
import type { View } from '../board/view';
import { REACH, type Mending } from './useMending';

type Place = [number, number];

interface Props {
  mending: Mending;
  picked: PickedView;
  /** From units of the file to the screen. */
  view: View;
  unit: number;
  /** Where the file's origin lies on the board, mm. */
  at: Place;
}

/** What is dragged: a node, or a handle of the curve that comes to it or leaves it. */
interface Hold {
  node: number;
  what: 'node' | 'into' | 'out';
}

/** A nudge, mm. */
const NUDGE = 0.1;

export function NodeHandles({ mending, picked, view, unit, at }: Props) {
  const [hold, setHold] = useState<Hold | null>(null);
  const [to, setTo] = useState<Place | null>(null);
  const from = useRef<Place | null>(null);
  const scale = unit * view.scale;
  const origin: Place = [view.x + at[0] * view.scale, view.y + at[1] * view.scale];
  const screen = ([x, y]: Place): Place => [origin[0] + x * scale, origin[1] + y * scale];
  const place = (event: React.PointerEvent<SVGElement>): Place => {
    const svg = event.currentTarget.ownerSVGElement ?? event.currentTarget;
    const frame = svg.getBoundingClientRect();
    return [
      (event.clientX - frame.left - origin[0]) / scale,
      (event.clientY - frame.top - origin[1]) / scale,
    ];
  };
  const keep = ({ node, what }: Hold, target: Place) =>
    mending.keep(
      what === 'node'
        ? { step: 'move', line: picked.line, node, to: target }
        : { step: 'bend', line: picked.line, node, leaves: what === 'out', to: target },
    );
  const drag = (own: Hold, start: Place) => ({
    onPointerDown: (event: React.PointerEvent<SVGElement>) => {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = place(event);
      mending.setNode(own.node);
      setHold(own);
      setTo(start);
    },
    onPointerMove: (event: React.PointerEvent<SVGElement>) => {
      if (!from.current || hold?.what !== own.what || hold.node !== own.node) return;
      const [x, y] = place(event);
      setTo([start[0] + x - from.current[0], start[1] + y - from.current[1]]);
    },
    onPointerUp: () => {
      const target = to;
      from.current = null;
      const isMoved = target && Math.hypot(target[0] - start[0], target[1] - start[1]) * scale > 2;
      if (!isMoved) {
        setHold(null);
        setTo(null);
        return;
      }
      void keep(own, target).finally(() => {
        setHold(null);
        setTo(null);
      });
    },
  });
  const nudge = (own: Hold, start: Place) => (event: React.KeyboardEvent) => {
    const ways: Record<string, Place> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const way = ways[event.key];
    if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      mending.setNode(null);
      void mending.keep({ step: 'drop-node', line: picked.line, node: own.node });
    }
    if (!way) return;
    event.preventDefault();
    const step = (NUDGE * (event.shiftKey ? 10 : 1)) / unit;
    void keep(own, [start[0] + way[0] * step, start[1] + way[1] * step]);
  };
  const taken = mending.node === null ? null : picked.nodes[mending.node];
  const shown = (own: Hold, start: Place) =>
    screen(hold?.what === own.what && hold.node === own.node && to ? to : start);
  const handles =
    taken && mending.node !== null
      ? (['into', 'out'] as const).flatMap((what) => {
          const start = taken[what];
          return start ? [{ own: { node: mending.node ?? 0, what }, start }] : [];
        })
      : [];
  const middle =
    taken && mending.node !== null ? shown({ node: mending.node, what: 'node' }, taken.at) : null;
  const near = mending.near && mending.node === null ? picked.segments[mending.near.segment] : null;
  const move = `translate(${origin.join(' ')}) scale(${scale})`;
  return (
    <g className="picked-line">
      <path d={picked.path} transform={move} aria-hidden="true" />
      {near && <path className="is-near" d={near.path} transform={move} aria-hidden="true" />}
      {middle &&
        handles.map(({ own, start }) => {
          const [x, y] = shown(own, start);
          return (
            <g key={own.what}>
              <line x1={middle[0]} y1={middle[1]} x2={x} y2={y} />
              <circle
                className="handle-end"
                cx={x}
                cy={y}
                r={5}
                tabIndex={0}
                role="button"
                aria-label={
                  own.what === 'into' ? 'Handle of the curve before' : 'Handle of the curve after'
                }
                onKeyDown={nudge(own, start)}
                {...drag(own, start)}
              />
            </g>
          );
        })}
      {picked.nodes.map(({ at: start, into, out }, number) => {
        const own: Hold = { node: number, what: 'node' };
        const [x, y] = shown(own, start);
        const isCurve = into ?? out;
        return (
          <rect
            key={number}
            className={mending.node === number ? 'is-taken' : undefined}
            x={x - 4}
            y={y - 4}
            width={8}
            height={8}
            rx={isCurve ? 4 : 0}
            tabIndex={0}
            role="button"
            aria-label={`Node ${number + 1} of ${picked.nodes.length}`}
            aria-pressed={mending.node === number}
            onFocus={() => mending.setNode(number)}
            onKeyDown={nudge(own, start)}
            {...drag(own, start)}
          />
        );
      })}
    </g>
  );
}

/** How near a press on the board must be to a line, in units of the file. */
export const reachOf = (view: View, unit: number) => REACH / (view.scale * unit);
