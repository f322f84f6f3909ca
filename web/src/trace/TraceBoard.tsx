/** The picture with what counts as inside, the line that is cut around it, and the tools that mend it. */
import { useState } from 'react';

import type { TracedView } from '../api/generated/types';
import { Inks } from '../board/Art';
import { FlatBoard } from '../board/FlatBoard';
import { slug } from '../board/FlatDrawing';
import { Dimensions } from '../board/Dimensions';
import type { View } from '../board/view';
import type { StageProps } from '../job/StageProps';
import { TOOLS, type Tool } from './tools';

interface Props {
  stage: StageProps;
  traced: TracedView;
  /** Around what would be inside, in mm from the picture's top left; none where nothing is tried. */
  tried: string | null;
  tool: Tool;
  /** A place, or what was drawn, as shares of the picture's sides. */
  onTool: (points: [number, number][]) => void;
  inHand: string | null;
  /** True for stickers on a card of their own. */
  isCard: boolean;
}

export function TraceBoard({ stage, traced, tried, tool, onTool, inHand, isCard }: Props) {
  const [drawn, setDrawn] = useState<[number, number][]>([]);
  const { piece, session } = stage;
  const { flat } = piece;
  const [left, top, width, height] = traced.at;
  const [across, along] = flat.size;
  const box = {
    x: Math.min(0, left),
    y: Math.min(0, top),
    width: Math.max(across, left + width) - Math.min(0, left),
    height: Math.max(along, top + height) - Math.min(0, top),
  };
  const share = (view: View, event: React.PointerEvent): [number, number] => {
    const svg = (event.currentTarget as SVGElement).ownerSVGElement ?? event.currentTarget;
    const frame = svg.getBoundingClientRect();
    const x = (event.clientX - frame.left - view.x) / view.scale;
    const y = (event.clientY - frame.top - view.y) / view.scale;
    return [(x - left) / width, (y - top) / height];
  };
  const place = ([x, y]: [number, number]) => `${left + x * width} ${top + y * height}`;
  const { shape } = TOOLS[tool];
  // On a sticker card they are cut to its liner, the card is cut through.
  const stickers = isCard ? 'kiss-cut' : flat.edge;
  return (
    <FlatBoard
      stage={stage}
      label={`Outline of ${session.job.name}, ${flat.size_text}`}
      padding={{ left: 71, top: 48, right: 30, bottom: 79 }}
      box={box}
      isPrinted={false}
      overlay={(view) => (
        <>
          <g className="trace" transform={`translate(${view.x} ${view.y}) scale(${view.scale})`}>
            {flat.parts.map(({ art, at, name }) => {
              // Colours and a printed border lie beneath the picture, which is drawn as it came.
              const areas = art?.layers.filter(({ kind }) => kind === 'area') ?? [];
              return (
                <g key={name} transform={`translate(${at[0]} ${at[1]})`}>
                  <g clipPath={`url(#${slug(name)})`}>
                    <Inks inks={areas} />
                  </g>
                </g>
              );
            })}
            <image
              href={`/api/blobs/${traced.picture}`}
              x={left}
              y={top}
              width={width}
              height={height}
              preserveAspectRatio="none"
            />
            {tried === null ? (
              <path className="trace-inside" d={traced.line} fillRule="evenodd" />
            ) : (
              <path
                className="trace-inside is-tried"
                d={tried}
                fillRule="evenodd"
                transform={`translate(${left} ${top})`}
              />
            )}
            {isCard && <path className="trace-cut" d={flat.outline} />}
            <path className="trace-cut" d={flat.openings} />
            <path className={`trace-cut is-${stickers}`} d={traced.cut} />
            {drawn.length > 0 && (
              <polyline className="trace-drawn" points={drawn.map(place).join(',')} />
            )}
          </g>
          <g className="trace-nodes" aria-hidden="true">
            {traced.nodes.map(([x, y], index) => (
              <circle
                key={index}
                cx={view.x + x * view.scale}
                cy={view.y + y * view.scale}
                r={traced.nodes.length > 300 ? 2 : 3.5}
              />
            ))}
            <path
              className="trace-strays"
              d={`M${view.x + traced.strays_at[0] * view.scale} ${view.y + traced.strays_at[1] * view.scale}m-7 -7l14 14m0 -14l-14 14`}
            />
          </g>
          <Dimensions
            dimensions={flat.dimensions}
            box={{ x: 0, y: 0, width: across, height: along }}
            view={view}
            field={inHand}
          />
          {shape !== 'none' && (
            <rect
              className={`trace-tool is-${shape}`}
              x={view.x + left * view.scale - 400}
              y={view.y + top * view.scale - 400}
              width={width * view.scale + 800}
              height={height * view.scale + 800}
              aria-label={TOOLS[tool].hint}
              onPointerDown={(event) => {
                event.stopPropagation();
                event.currentTarget.setPointerCapture(event.pointerId);
                setDrawn([share(view, event)]);
              }}
              onPointerMove={(event) => {
                if (drawn.length === 0 || event.buttons !== 1) return;
                event.stopPropagation();
                const next = share(view, event);
                setDrawn((before) => {
                  const first = before[0];
                  if (!first || shape === 'place') return before;
                  if (shape === 'stroke') return [...before, next].slice(-200);
                  return [first, next];
                });
              }}
              onPointerUp={(event) => {
                event.stopPropagation();
                if (drawn.length > 0) onTool(drawn);
                setDrawn([]);
              }}
            />
          )}
        </>
      )}
    />
  );
}
