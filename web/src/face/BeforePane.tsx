/** The picture that was brought in, with what is erased of it; tools are used on it. */
import { type PointerEvent, useRef, useState } from 'react';

import type { DrawingParts, ReworkStep } from '../api/generated/types';
import { blobAddress } from '../board/Art';

/** What the next touch of the picture does. */
export type Tool =
  { kind: 'point'; step: number } | { kind: 'rectangle' } | { kind: 'stroke'; width: number };

type Place = [number, number];

interface Props {
  from: string;
  pixels: [number, number];
  steps: ReworkStep[];
  tool: Tool | null;
  parts: DrawingParts | null;
  onPoint: (at: Place) => void;
  onRectangle: (corners: [Place, Place]) => void;
  onStroke: (points: Place[]) => void;
  onPart: (part: number) => void;
}

/** Most points of a stroke that is drawn: of more every second is left out. */
const MOST_POINTS = 200;

export function BeforePane(props: Props) {
  const { from, pixels, steps, tool, parts, onPoint, onRectangle, onStroke, onPart } = props;
  const [width, height] = pixels;
  const svg = useRef<SVGSVGElement>(null);
  const [drawn, setDrawn] = useState<Place[]>([]);
  const placeOf = (event: PointerEvent): Place | null => {
    const seen = svg.current?.getScreenCTM();
    if (!seen) return null;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(seen.inverse());
    const share = (value: number, side: number) => Math.min(1, Math.max(0, value / side));
    return [share(at.x, width), share(at.y, height)];
  };
  const scaled = ([x, y]: Place): Place => [x * width, y * height];
  const begin = (event: PointerEvent) => {
    const place = placeOf(event);
    if (!tool || !place) return;
    event.preventDefault();
    if (tool.kind === 'point') {
      onPoint(place);
      return;
    }
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrawn([place]);
  };
  const goOn = (event: PointerEvent) => {
    const place = placeOf(event);
    if (drawn.length === 0 || !place) return;
    if (tool?.kind === 'rectangle') setDrawn([drawn[0] as Place, place]);
    else setDrawn([...(drawn.length < MOST_POINTS ? drawn : thinned(drawn)), place]);
  };
  const end = () => {
    const [first, last] = [drawn[0], drawn[drawn.length - 1]];
    if (first && last && tool?.kind === 'rectangle' && drawn.length > 1) onRectangle([first, last]);
    if (first && tool?.kind === 'stroke') onStroke(drawn);
    setDrawn([]);
  };
  const longest = Math.max(width, height);
  const line = (points: Place[]) => points.map((place) => scaled(place).join(',')).join(' ');
  return (
    <div className="rework-picture">
      <svg
        ref={svg}
        viewBox={`0 0 ${width} ${height}`}
        className={tool ? 'is-aimed' : ''}
        role="img"
        aria-label="The picture as it came"
        onPointerDown={begin}
        onPointerMove={goOn}
        onPointerUp={end}
        onPointerCancel={() => setDrawn([])}
      >
        <image href={blobAddress(from)} {...{ width, height }} preserveAspectRatio="none" />
        {steps.map((step, at) => {
          if (step.off) return null;
          if (step.kind === 'rectangle') {
            const [[ax, ay], [bx, by]] = [scaled(step.corners[0]), scaled(step.corners[1])];
            return (
              <rect
                key={at}
                className="erased"
                x={Math.min(ax, bx)}
                y={Math.min(ay, by)}
                width={Math.abs(bx - ax)}
                height={Math.abs(by - ay)}
              />
            );
          }
          if (step.kind === 'stroke')
            return (
              <polyline
                key={at}
                className="erased-along"
                points={line(
                  step.points.length === 1 ? [...step.points, ...step.points] : step.points,
                )}
                strokeWidth={step.width * longest}
              />
            );
          if (step.kind === 'background' && step.from.by === 'point') {
            const [x, y] = scaled(step.from.at);
            const arm = longest / 60;
            return (
              <path
                key={at}
                className="begins"
                d={`M${x - arm} ${y}H${x + arm}M${x} ${y - arm}V${y + arm}`}
              />
            );
          }
          return null;
        })}
        {drawn.length > 1 &&
          (tool?.kind === 'stroke' ? (
            <polyline
              className="erased-along"
              points={line(drawn)}
              strokeWidth={tool.width * longest}
            />
          ) : (
            <polygon
              className="erased"
              points={line([
                drawn[0] as Place,
                [drawn[1]?.[0] ?? 0, drawn[0]?.[1] ?? 0],
                drawn[1] as Place,
                [drawn[0]?.[0] ?? 0, drawn[1]?.[1] ?? 0],
              ])}
            />
          ))}
        {parts && (
          <g transform={`scale(${width / parts.sides[0]} ${height / parts.sides[1]})`}>
            {parts.parts.map((part, at) => (
              <path
                key={at}
                className={`drawn-part${isChanged(steps, at) ? ' is-changed' : ''}`}
                d={part.path}
                role="button"
                tabIndex={0}
                aria-label={`Part ${at + 1}${part.is_picture ? ', a picture' : ''}`}
                onClick={() => onPart(at)}
                onKeyDown={(event) => {
                  if (event.key !== 'Enter' && event.key !== ' ') return;
                  event.preventDefault();
                  onPart(at);
                }}
              />
            ))}
          </g>
        )}
      </svg>
    </div>
  );
}

const isChanged = (steps: ReworkStep[], part: number) =>
  steps.some((step) => step.kind === 'part' && step.part === part && step.off !== true);

const thinned = (points: Place[]) => points.filter((_, at) => at % 2 === 0);
