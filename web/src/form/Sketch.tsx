/** What the figure in hand measures: the flat, small, with the length lit, and a sentence. */
import type { Figure } from '../api/generated/types';
import type { FlatView } from '../api/views';

/** Room for the sketch, px. */
const [WIDTH, HEIGHT] = [116, 96];

export function Sketch({ figure, flat }: { figure: Figure; flat: FlatView }) {
  const [width, height] = flat.size;
  const scale = Math.min(WIDTH / width, HEIGHT / height);
  const dimension = flat.dimensions.find(({ field }) => field === figure.field);
  return (
    <figure className="sketch">
      <svg
        viewBox={`-4 -4 ${width * scale + 8} ${height * scale + 8}`}
        style={{ width: width * scale + 8 }}
        aria-hidden="true"
      >
        <g transform={`scale(${scale})`}>
          <path className="sketch-card" d={flat.outline + flat.openings} fillRule="evenodd" />
          {flat.lines.map((line) => (
            <path key={line.kind} className="sketch-fold" d={line.path} />
          ))}
        </g>
        {dimension && (
          <path
            className="sketch-arrow"
            d={`M${dimension.from[0] * scale} ${dimension.from[1] * scale}L${dimension.to[0] * scale} ${dimension.to[1] * scale}`}
          />
        )}
      </svg>
      <figcaption>
        <b>{figure.label}.</b> {figure.note}
        <span className="sketch-range figure">{figure.range_text}</span>
      </figcaption>
    </figure>
  );
}
