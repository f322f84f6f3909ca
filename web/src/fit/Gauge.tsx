/** A scale with a needle: where a value stands against its bound. */
import type { Gauge as Numbers } from '../api/generated/types';

const WIDTH = 132;
/** Where along the scale the bound stands. */
const MOST = 0.72;
const LEAST = 0.34;

function needle({ value, bound, sense }: Numbers): number {
  const stand = sense === 'at-most' ? MOST : LEAST;
  // A bound of 0 has no proportion: 10 mm then fill the scale.
  const share = bound > 0 ? (value / bound) * stand : stand + value / 15;
  return Math.min(1, Math.max(0, share));
}

export function Gauge({ numbers, state }: { numbers: Numbers; state: string }) {
  const bound = numbers.sense === 'at-most' ? MOST : LEAST;
  const wrong =
    numbers.sense === 'at-most'
      ? { x: bound * WIDTH, width: (1 - bound) * WIDTH }
      : { x: 0, width: bound * WIDTH };
  const at = needle(numbers) * WIDTH;
  const ticks = Array.from({ length: 11 }, (_, index) => (index * WIDTH) / 10);
  return (
    <svg className={`gauge gauge-${state}`} viewBox={`-5 0 ${WIDTH + 10} 20`} aria-hidden="true">
      <rect className="gauge-track" x="0" y="8" width={WIDTH} height="5" />
      <rect className="gauge-wrong" x={wrong.x} y="8" width={wrong.width} height="5" />
      <path className="gauge-ticks" d={ticks.map((x) => `M${x} 14v3`).join('')} />
      <line className="gauge-bound" x1={bound * WIDTH} x2={bound * WIDTH} y1="5" y2="17" />
      <path className="gauge-needle" d={`M${at} 9l-4.5 -8h9z`} />
    </svg>
  );
}
