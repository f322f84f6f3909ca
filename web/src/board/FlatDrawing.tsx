/** One piece laid flat: card, art, panels, lines by kind. */
import type { FlatView } from '../api/views';
import { Art } from './Art';
import type { View } from './view';

interface Props {
  flat: FlatView;
  /** True to show what is printed. */
  isPrinted: boolean;
  colour: string;
  hovered: string | null;
  onHover: (name: string | null) => void;
  /** A place to point at, as path data. */
  place: string | null;
}

export function FlatDrawing({ flat, isPrinted, colour, hovered, onHover, place }: Props) {
  return (
    <g className="flat">
      <defs>
        <pattern
          id="glue"
          width="3"
          height="3"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line className="hatch-glue" x1="0" y1="0" x2="0" y2="3" />
        </pattern>
        {flat.parts.map((part) => (
          <clipPath key={part.name} id={slug(part.name)}>
            <path d={part.outline + part.openings} clipRule="evenodd" />
          </clipPath>
        ))}
      </defs>
      <path className="card" d={flat.outline + flat.openings} fill={colour} fillRule="evenodd" />
      {isPrinted &&
        flat.parts.map(({ art, at, name }) =>
          art ? (
            <g key={name} transform={`translate(${at[0]} ${at[1]})`}>
              <g clipPath={`url(#${slug(name)})`}>
                <Art art={art} />
              </g>
              <path className="line bleed" d={art.to_edge} />
            </g>
          ) : null,
        )}
      {flat.panels.map((panel) => (
        <path
          key={panel.name}
          data-panel={panel.name}
          d={panel.path}
          className={`panel${hovered === panel.shown ? ' hovered' : ''}`}
          fill={panel.role === 'glue' ? 'url(#glue)' : 'transparent'}
          onPointerEnter={() => onHover(panel.shown)}
          onPointerLeave={() => onHover(null)}
        />
      ))}
      {flat.lines.map((line) => (
        <path
          key={line.kind}
          className={`line ${line.kind}`}
          d={line.path}
          onPointerEnter={() => onHover(line.kind.replace('-', ' '))}
          onPointerLeave={() => onHover(null)}
        />
      ))}
      <path className={`line ${flat.edge} outline`} d={flat.outline} />
      {place !== null && <path className="place" d={place} />}
    </g>
  );
}

/** What a blank's clip is known by in its drawing. */
export const slug = (name: string) => `blank-${name.replace(/\W+/g, '-')}`;

/** Words smaller than this on the screen, px, are left out. */
const SMALLEST_LABEL = 5;

/** The numbers at mating edges, and the words on labels. */
export function MateNumbers({ flat, view }: { flat: FlatView; view: View }) {
  return (
    <g className="mates" aria-hidden="true">
      {flat.labels.map(({ text, at, size }) => {
        const fitting = Math.min(size[1] * 0.7, size[0] / (0.58 * Math.max(1, text.length)));
        const height = Math.min(15, fitting * view.scale);
        if (height < SMALLEST_LABEL) return null;
        return (
          <text
            key={`${text} ${at[0]} ${at[1]}`}
            className="label-text"
            style={{ fontSize: height }}
            x={at[0] * view.scale + view.x}
            y={at[1] * view.scale + view.y + height * 0.34}
            textAnchor="middle"
          >
            {text}
          </text>
        );
      })}
      {flat.mates.map(({ at, number }) => (
        <text
          key={`${number} ${at[0]} ${at[1]}`}
          x={at[0] * view.scale + view.x}
          y={at[1] * view.scale + view.y + 4}
          textAnchor="middle"
        >
          {number}
        </text>
      ))}
    </g>
  );
}

/** The panels' names, where they have room; upright in narrow panels. */
export function PanelNames({ flat, view }: { flat: FlatView; view: View }) {
  return (
    <g className="panel-names" aria-hidden="true">
      {flat.panels
        .filter((panel) => panel.role !== 'flap' && panel.shown === panel.name)
        // Tabs of nets are named by their numbers.
        .filter((panel) => panel.role !== 'glue' || flat.mates.length === 0)
        .map((panel) => {
          const length = panel.name.length * 6.6 + 12;
          const [width, height] = [panel.size[0] * view.scale, panel.size[1] * view.scale];
          const turn = length <= width ? 0 : -90;
          if ((turn ? height : width) < length || (turn ? width : height) < 18) return null;
          const [x, y] = [
            panel.centre[0] * view.scale + view.x,
            panel.centre[1] * view.scale + view.y,
          ];
          return (
            <text
              key={panel.name}
              transform={`translate(${x} ${y}) rotate(${turn})`}
              dy="4"
              textAnchor="middle"
            >
              {panel.name}
            </text>
          );
        })}
    </g>
  );
}
