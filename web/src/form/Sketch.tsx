/** What the figure in hand measures, as a small sketch of the carton and a sentence. */
import type { Figure } from '../api/generated/types';

/** Arrows on a carton seen from the front right, its top open. */
const ARROWS: Record<string, string> = {
  'form.length': 'M20 100H80',
  'form.width': 'M84 98L112 82',
  'form.height': 'M14 40V94',
  'form.tuck': 'M48 4L48 16',
  'form.dust': 'M84 36L70 30',
  'form.glue': 'M20 66H30',
  'form.slit': 'M50 18H60',
  'form.clearance': 'M50 12L56 12',
};

export function Sketch({ figure }: { figure: Figure }) {
  const arrow = ARROWS[figure.field];
  return (
    <figure className="sketch">
      <svg viewBox="0 0 124 108" aria-hidden="true">
        <path className="sketch-card" d="M20 40H80V94H20ZM80 40L108 24V78L80 94ZM20 40L48 24H108" />
        <path
          className="sketch-card"
          d="M48 24L48 16L108 16V24M52 16V6Q52 3 56 3H100Q104 3 104 6V16M80 40L68 33L94 20"
        />
        <path className="sketch-fold" d="M52 16H104M30 40V94" />
        {arrow && <path className="sketch-arrow" d={arrow} />}
      </svg>
      <figcaption>
        <b>{figure.label}.</b> {figure.note}
      </figcaption>
    </figure>
  );
}
