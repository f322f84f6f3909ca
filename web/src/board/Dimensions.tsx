/** Dimensions as a drafter draws them: extension lines, arrows and a figure. */
import type { Dimension } from '../api/generated/types';
import type { Box, View } from './view';

const FIRST = 26;
const TIER = 27;
const CHARACTER = 7.6;
/** Arrows and a hair of air, px. */
const ARROWS = 16;

interface Props {
  dimensions: Dimension[];
  /** The blank, mm; dimension lines keep clear of it. */
  box: Box;
  view: View;
  /** The field in hand, whose dimension is lit. */
  field: string | null;
}

export function Dimensions({ dimensions, box, view, field }: Props) {
  const bottom = (box.y + box.height) * view.scale + view.y;
  const left = box.x * view.scale + view.x;
  return (
    <g className="dimensions" aria-hidden="true">
      {dimensions.map((dimension) => {
        const lit = dimension.field !== null && dimension.field === field;
        if (dimension.is_quiet && !lit) return null;
        const key = `${dimension.axis}${dimension.from.join()}${dimension.to.join()}${dimension.tier}`;
        const point = ([x, y]: [number, number]) => ({
          x: x * view.scale + view.x,
          y: y * view.scale + view.y,
        });
        const from = point(dimension.from);
        const to = point(dimension.to);
        const off = FIRST + TIER * dimension.tier;
        // Where the figure stands beside its arrows, it takes the side that has no neighbour.
        const start = dimension.axis === 'across' ? 0 : 1;
        const isAfter = dimensions.some(
          (other) =>
            other !== dimension &&
            !other.is_quiet &&
            other.axis === dimension.axis &&
            other.tier === dimension.tier &&
            Math.abs(other.to[start] - dimension.from[start]) < 0.01,
        );
        return (
          <g key={key} className={lit ? 'lit' : undefined}>
            {dimension.axis === 'across' ? (
              <Across
                from={from}
                to={to}
                y={bottom + off}
                text={dimension.text}
                isAfter={isAfter}
              />
            ) : (
              <Along from={from} to={to} x={left - off} text={dimension.text} isAfter={isAfter} />
            )}
          </g>
        );
      })}
    </g>
  );
}

interface Point {
  x: number;
  y: number;
}

interface LineProps {
  from: Point;
  to: Point;
  text: string;
  /** The figure stands behind the far end rather than before the near one. */
  isAfter: boolean;
}

const arrow = (x: number, y: number, dx: number, dy: number) =>
  `M${x} ${y}l${7 * dx - 2.4 * dy} ${7 * dy + 2.4 * dx}l${4.8 * dy} ${-4.8 * dx}z`;

function Figure({ x, y, text, turn }: { x: number; y: number; text: string; turn: number }) {
  const width = text.length * CHARACTER + 8;
  return (
    <g transform={`translate(${x} ${y}) rotate(${turn})`}>
      <rect className="dimension-back" x={-width / 2} y={-8} width={width} height={16} />
      <text textAnchor="middle" dy="4.5">
        {text}
      </text>
    </g>
  );
}

/** Where the figure does not fit between the arrows, it stands beside them. */
function Across({ from, to, y, text, isAfter }: LineProps & { y: number }) {
  const length = to.x - from.x;
  const inside = length > text.length * CHARACTER + ARROWS;
  const away = (text.length * CHARACTER) / 2 + 10;
  const beside = isAfter ? to.x + away : from.x - away;
  return (
    <>
      <path
        className="extension"
        d={`M${from.x} ${from.y + 4}V${y + 5}M${to.x} ${to.y + 4}V${y + 5}`}
      />
      <path d={inside ? `M${from.x} ${y}H${to.x}` : `M${from.x - 8} ${y}H${to.x + 8}`} />
      <path
        className="arrow"
        d={
          inside
            ? arrow(from.x, y, 1, 0) + arrow(to.x, y, -1, 0)
            : arrow(from.x, y, -1, 0) + arrow(to.x, y, 1, 0)
        }
      />
      <Figure x={inside ? (from.x + to.x) / 2 : beside} y={y} text={text} turn={0} />
    </>
  );
}

function Along({ from, to, x, text, isAfter }: LineProps & { x: number }) {
  const length = to.y - from.y;
  const inside = length > text.length * CHARACTER + ARROWS;
  const away = (text.length * CHARACTER) / 2 + 10;
  const beside = isAfter ? to.y + away : from.y - away;
  return (
    <>
      <path
        className="extension"
        d={`M${from.x - 4} ${from.y}H${x - 5}M${to.x - 4} ${to.y}H${x - 5}`}
      />
      <path d={inside ? `M${x} ${from.y}V${to.y}` : `M${x} ${from.y - 8}V${to.y + 8}`} />
      <path
        className="arrow"
        d={
          inside
            ? arrow(x, from.y, 0, 1) + arrow(x, to.y, 0, -1)
            : arrow(x, from.y, 0, -1) + arrow(x, to.y, 0, 1)
        }
      />
      <Figure x={x} y={inside ? (from.y + to.y) / 2 : beside} text={text} turn={-90} />
    </>
  );
}
