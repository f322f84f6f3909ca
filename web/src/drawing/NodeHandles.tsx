/** The line that is worked at, its nodes and the handles of the one that is taken: dragged, or nudged with the keys. */
import { memo, useRef, useState } from 'react';

import type { NodeView, PickedView } from '../api/generated/types';
import type { View } from '../board/view';
import { REACH, type Mending } from './useMending';

type Place = [number, number];

interface Props {
  mending: Mending;
  picked: PickedView;
  /** From mm to the screen. */
  view: View;
  /** How long a unit of the file is, mm. */
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

const WAYS: Record<string, Place> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const holdOf = (target: EventTarget): Hold | null => {
  if (!(target instanceof SVGElement)) return null;
  const { node, what } = target.dataset;
  return node === undefined ? null : { node: Number(node), what: (what ?? 'node') as Hold['what'] };
};

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
  const startOf = ({ node, what }: Hold): Place | null => {
    const own = picked.nodes[node];
    return own ? (what === 'node' ? own.at : own[what]) : null;
  };
  const keep = ({ node, what }: Hold, target: Place) =>
    mending.keep(
      what === 'node'
        ? { step: 'move', line: picked.line, node, to: target }
        : { step: 'bend', line: picked.line, node, leaves: what === 'out', to: target },
    );
  const rest = () => {
    from.current = null;
    setHold(null);
    setTo(null);
  };
  const down = (event: React.PointerEvent<SVGGElement>) => {
    const own = holdOf(event.target);
    const start = own && startOf(own);
    if (!start) return;
    event.stopPropagation();
    (event.target as SVGElement).setPointerCapture(event.pointerId);
    from.current = place(event);
    mending.setNode(own.node);
    setHold(own);
    setTo(start);
  };
  const move = (event: React.PointerEvent<SVGGElement>) => {
    const start = hold && startOf(hold);
    if (!from.current || !start) return;
    const [x, y] = place(event);
    setTo([start[0] + x - from.current[0], start[1] + y - from.current[1]]);
  };
  const up = () => {
    const start = hold && startOf(hold);
    from.current = null;
    if (!start || !to || Math.hypot(to[0] - start[0], to[1] - start[1]) * scale <= 2) {
      rest();
      return;
    }
    void keep(hold, to).finally(rest);
  };
  const nudge = (event: React.KeyboardEvent) => {
    const own = holdOf(event.target);
    const start = own && startOf(own);
    if (!start) return;
    if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      mending.setNode(null);
      void mending.keep({ step: 'drop-node', line: picked.line, node: own.node });
    }
    const way = WAYS[event.key];
    if (!way) return;
    event.preventDefault();
    const step = (NUDGE * (event.shiftKey ? 10 : 1)) / unit;
    void keep(own, [start[0] + way[0] * step, start[1] + way[1] * step]);
  };
  const focus = (event: React.FocusEvent) => {
    const own = holdOf(event.target);
    if (own) mending.setNode(own.node);
  };
  const { node } = mending;
  const taken = node === null ? undefined : picked.nodes[node];
  const near = mending.near && node === null ? picked.segments[mending.near.segment] : null;
  const placed = `translate(${origin.join(' ')}) scale(${scale})`;
  const count = picked.nodes.length;
  const beside =
    hold?.what === 'node'
      ? [hold.node - 1, hold.node + 1].flatMap((number) => {
          const other = picked.nodes[picked.is_closed ? (number + count) % count : number];
          return other ? [other.at] : [];
        })
      : [];
  return (
    <g
      className="picked-line"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onKeyDown={nudge}
      onFocus={focus}
    >
      <path d={picked.path} transform={placed} aria-hidden="true" />
      {near && <path className="is-near" d={near.path} transform={placed} aria-hidden="true" />}
      {to &&
        beside.map((other, at) => (
          <line
            key={at}
            className="to-be"
            x1={screen(other)[0]}
            y1={screen(other)[1]}
            x2={screen(to)[0]}
            y2={screen(to)[1]}
          />
        ))}
      {taken &&
        node !== null &&
        (['into', 'out'] as const).map((what) => {
          const start = taken[what];
          if (!start) return null;
          const [x, y] = screen(hold?.what === what && to ? to : start);
          const [fromX, fromY] = screen(taken.at);
          return (
            <g key={what}>
              <line x1={fromX} y1={fromY} x2={x} y2={y} />
              <circle
                data-node={node}
                data-what={what}
                cx={x}
                cy={y}
                r={5}
                tabIndex={0}
                role="button"
                aria-label={
                  what === 'into' ? 'Handle of the curve before' : 'Handle of the curve after'
                }
              />
            </g>
          );
        })}
      <Nodes nodes={picked.nodes} x={origin[0]} y={origin[1]} scale={scale} taken={node} />
      {to && hold?.what === 'node' && (
        <circle className="is-taken" cx={screen(to)[0]} cy={screen(to)[1]} r={5} />
      )}
    </g>
  );
}

interface NodesProps {
  nodes: NodeView[];
  x: number;
  y: number;
  scale: number;
  taken: number | null;
}

/** All nodes; they stay as they are while one is dragged, however many there are. */
const Nodes = memo(function Nodes({ nodes, x, y, scale, taken }: NodesProps) {
  return (
    <>
      {nodes.map(({ at, into, out }, number) => (
        <rect
          key={number}
          data-node={number}
          className={taken === number ? 'is-taken' : undefined}
          x={x + at[0] * scale - 4}
          y={y + at[1] * scale - 4}
          width={8}
          height={8}
          rx={(into ?? out) ? 4 : 0}
          tabIndex={0}
          role="button"
          aria-label={`Node ${number + 1} of ${nodes.length}`}
          aria-pressed={taken === number}
        />
      ))}
    </>
  );
});

/** How near a press on the board must be to a line, in units of the file. */
export const reachOf = (view: View, unit: number) => REACH / (view.scale * unit);
