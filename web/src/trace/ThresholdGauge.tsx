/** What of a picture counts as inside: a needle over how many pixels there are at each value. */
import { useRef } from 'react';
import { Button } from 'react-bootstrap';

import type { FoundView } from '../api/generated/types';

const WIDTH = 288;
const HEIGHT = 92;

/** What the ends of the scale mean. */
const ENDS: Record<string, [string, string]> = {
  transparency: ['clear', 'covered'],
  background: ['like the background', 'unlike it'],
  darkness: ['light', 'dark'],
  colour: ['another colour', 'this one'],
};

interface Props {
  by: string;
  found: FoundView | null;
  /** The threshold that is set; none by itself. */
  own: number | null;
  /** What the needle shows while it is moved. */
  tried: number | null;
  onTry: (threshold: number) => void;
  onKeep: (threshold: number | null) => void;
}

const within = (value: number) => Math.min(0.998, Math.max(0.002, value));
const percent = (value: number) => `${(value * 100).toFixed(1)} %`;

export function ThresholdGauge({ by, found, own, tried, onTry, onKeep }: Props) {
  const scale = useRef<SVGSVGElement>(null);
  const latest = useRef<number | null>(null);
  const shown = tried ?? own ?? found?.threshold ?? 0.5;
  const bars = found?.histogram ?? [];
  const wide = WIDTH / Math.max(1, bars.length);
  const [low, high] = ENDS[by] ?? ['little', 'much'];
  const at = (event: React.PointerEvent) => {
    const box = scale.current?.getBoundingClientRect();
    return box ? within((event.clientX - box.left) / box.width) : shown;
  };
  const go = (value: number) => {
    latest.current = value;
    onTry(value);
  };
  const step = (by: number) => {
    const next = within(Math.round((shown + by) * 1000) / 1000);
    onKeep(next);
  };
  return (
    <div className="threshold">
      <svg
        ref={scale}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="slider"
        tabIndex={0}
        aria-label="Threshold"
        aria-valuemin={0.2}
        aria-valuemax={99.8}
        aria-valuenow={Math.round(shown * 1000) / 10}
        aria-valuetext={`${percent(shown)}${own === null && tried === null ? ', by itself' : ''}`}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          go(at(event));
        }}
        onPointerMove={(event) => {
          if (event.buttons === 1) go(at(event));
        }}
        onPointerUp={() => {
          if (latest.current !== null) onKeep(latest.current);
          latest.current = null;
        }}
        onKeyDown={(event) => {
          const far = event.shiftKey ? 0.05 : 0.01;
          if (event.key === 'ArrowRight' || event.key === 'ArrowUp') step(far);
          else if (event.key === 'ArrowLeft' || event.key === 'ArrowDown') step(-far);
          else return;
          event.preventDefault();
        }}
      >
        {bars.map((share, index) => (
          <rect
            key={index}
            className={(index + 0.5) / bars.length >= shown ? 'bar-inside' : 'bar-outside'}
            x={index * wide}
            width={Math.max(1, wide - 0.6)}
            y={(1 - share) * (HEIGHT - 14)}
            height={share * (HEIGHT - 14)}
          />
        ))}
        <line className="scale" x1="0" x2={WIDTH} y1={HEIGHT - 14} y2={HEIGHT - 14} />
        {found && (
          <line
            className="by-itself"
            x1={found.proposed * WIDTH}
            x2={found.proposed * WIDTH}
            y1="0"
            y2={HEIGHT - 14}
          />
        )}
        <line className="needle" x1={shown * WIDTH} x2={shown * WIDTH} y1="0" y2={HEIGHT - 12} />
        <path className="needle-foot" d={`M${shown * WIDTH} ${HEIGHT - 13}l-6 11h12z`} />
      </svg>
      <div className="threshold-ends">
        <span>{low}</span>
        <span>{high}</span>
      </div>
      <div className="row-result">
        <span>Threshold</span>
        <span className="figure">
          {percent(shown)}{' '}
          {own === null && tried === null ? (
            <span className="by">by itself</span>
          ) : (
            <Button size="sm" variant="link" onClick={() => onKeep(null)}>
              by itself
            </Button>
          )}
        </span>
      </div>
    </div>
  );
}
