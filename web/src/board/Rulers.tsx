import type { UnitInfo } from '../api/generated/types';
import type { View } from './view';

const THICK = 24;

interface Tick {
  at: number;
  long: boolean;
  label: string | null;
}

/** Ticks along one axis: figures at least 56 px apart, marks at least 5 px apart. */
function ticks(offset: number, scale: number, length: number, unit: UnitInfo): Tick[] {
  const pixels = unit.millimetres * scale;
  const steps = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];
  const major = steps.find((step) => step * pixels >= 56) ?? 2000;
  const parts = [unit.divisions, 10, 8, 5, 4, 2].filter((part) => part <= unit.divisions);
  const divisions = parts.find((part) => (major * pixels) / part >= 5) ?? 1;
  const minor = (major * pixels) / divisions;
  const first = Math.ceil((THICK - offset) / minor);
  const last = Math.floor((length - offset) / minor);
  const found: Tick[] = [];
  for (let index = first; index <= last; index += 1) {
    const long = index % divisions === 0;
    found.push({
      at: offset + index * minor,
      long,
      label: long ? String((index / divisions) * major) : null,
    });
  }
  return found;
}

/** Rulers along the top and the left, in the user's unit. */
export function Rulers(props: { view: View; width: number; height: number; unit: UnitInfo }) {
  const { view, width, height, unit } = props;
  return (
    <g className="rulers" aria-hidden="true">
      <rect className="ruler-back" width={width} height={THICK} />
      <rect className="ruler-back" width={THICK} height={height} />
      {ticks(view.x, view.scale, width, unit).map(({ at, long, label }) => (
        <g key={at}>
          <line x1={at} x2={at} y1={long ? 10 : 18} y2={THICK} />
          {label !== null && (
            <text x={at + 3} y={12}>
              {label}
            </text>
          )}
        </g>
      ))}
      {ticks(view.y, view.scale, height, unit).map(({ at, long, label }) => (
        <g key={at}>
          <line y1={at} y2={at} x1={long ? 10 : 18} x2={THICK} />
          {label !== null && <text transform={`translate(12 ${at - 3}) rotate(-90)`}>{label}</text>}
        </g>
      ))}
      <rect className="ruler-corner" width={THICK} height={THICK} />
      <text className="ruler-unit" x={THICK / 2} y={16} textAnchor="middle">
        {unit.unit}
      </text>
    </g>
  );
}
