/** What is done on the picture by hand: a correction of the outline, or a choice of what is looked at. */
import type { Mend } from '../api/generated/types';

export type Tool =
  'look' | 'push' | 'drop' | 'smooth' | 'cut' | 'fill' | 'part' | 'around' | 'hole';

/** What of the pointer's way counts: its place, its ends, or all of it. */
type Shape = 'none' | 'place' | 'ends' | 'stroke';

export const TOOLS: Record<Tool, { label: string; hint: string; shape: Shape }> = {
  look: { label: 'look', hint: '', shape: 'none' },
  push: { label: 'push a node', hint: 'Drag a node to where it belongs.', shape: 'ends' },
  drop: { label: 'take a node away', hint: 'Press on the node.', shape: 'place' },
  smooth: {
    label: 'smooth',
    hint: 'Drag from the middle of the stretch to its end.',
    shape: 'ends',
  },
  cut: { label: 'cut off', hint: 'Draw across the crumb, or along what goes.', shape: 'stroke' },
  fill: { label: 'close a bay', hint: 'Draw over what belongs to it.', shape: 'stroke' },
  part: { label: 'a part', hint: 'Drag a rectangle around the part.', shape: 'ends' },
  hole: { label: 'one hole', hint: 'Press in the hole that is not as the others.', shape: 'place' },
  around: { label: 'one motif', hint: 'Press on the motif.', shape: 'place' },
};

/** The widths of strokes, as shares of the picture's width. */
const WIDTH = { cut: 0.008, fill: 0.03 };

type Points = [number, number][];

/** The correction that a tool makes of what was drawn. */
export function mendOf(tool: Tool, points: Points): Mend | null {
  const first = points[0];
  const last = points.at(-1);
  if (!first || !last) return null;
  const by: [number, number] = [last[0] - first[0], last[1] - first[1]];
  switch (tool) {
    case 'push':
      return { mend: 'push', at: first, by };
    case 'drop':
      return { mend: 'drop', at: first };
    case 'smooth':
      return {
        mend: 'smooth',
        at: first,
        within: Math.min(0.5, Math.max(0.02, Math.hypot(...by))),
      };
    case 'cut':
    case 'fill':
      return { mend: tool, points, width: WIDTH[tool] };
    default:
      return null;
  }
}

/** A part of the picture from two of its corners. */
export function partOf(points: Points): [number, number, number, number] | null {
  const inside = (share: number) => Math.min(1, Math.max(0, share));
  const xs = points.map(([x]) => inside(x));
  const ys = points.map(([, y]) => inside(y));
  const part = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as [
    number,
    number,
    number,
    number,
  ];
  return part[2] - part[0] > 0.01 && part[3] - part[1] > 0.01 ? part : null;
}
