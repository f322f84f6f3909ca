/** The folded piece as core draws it: small pictures, and where there is no WebGL. */
import type { FoldedDrawing } from '../api/generated/types';

interface Props {
  drawing: FoldedDrawing;
  colour: string;
  lit?: string | null;
  onLit?: (panel: string | null) => void;
  label?: string;
}

export function FoldedPicture({ drawing, colour, lit, onLit, label }: Props) {
  const [x, y, width, height] = drawing.bounds;
  const edge = Math.max(width, height) * 0.02;
  const box = `${x - edge} ${y - edge} ${width + 2 * edge} ${height + 2 * edge}`;
  return (
    <svg
      className="folded-picture"
      viewBox={box}
      {...(label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true })}
    >
      {drawing.faces.map((face, index) => {
        const shade = Math.round(face.light * (face.is_inside ? 84 : 100));
        const fill = `color-mix(in srgb, ${colour} ${shade}%, var(--fold-shade))`;
        return (
          <g
            key={index}
            className={lit === face.panel ? 'is-lit' : undefined}
            onPointerEnter={() => onLit?.(face.panel)}
            onPointerLeave={() => onLit?.(null)}
          >
            <path className="folded-face" d={face.face} style={{ fill, stroke: fill }} />
            <path className="folded-side" d={face.sides} />
          </g>
        );
      })}
    </svg>
  );
}
