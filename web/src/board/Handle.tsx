/** Something on the drawing that is dragged, and nudged with the arrow keys. */
import { type ReactNode, useRef } from 'react';

import type { View } from './view';

interface Props {
  /** Its middle and its size, mm. */
  at: [number, number];
  size: [number, number];
  view: View;
  label: string;
  isPicked: boolean;
  onPick: () => void;
  /** Tries it so many mm further than where it was taken; dragged with Alt, or nudged, it goes just there. */
  onMove: (across: number, along: number, isDrag: boolean) => void;
  /** Keeps what was tried. */
  onKeep: () => void;
  onKey?: (event: React.KeyboardEvent) => void;
  children?: ReactNode;
}

/** The least size at which a pointer finds it, px. */
const LEAST = 14;

/** After so long a nudge starts from where it lies, ms. */
const PAUSE = 1000;

export function Handle(props: Props) {
  const { at, size, view, label, isPicked, onPick, onMove, onKeep, onKey, children } = props;
  const from = useRef<{ x: number; y: number } | null>(null);
  // Where nudges are taking it: presses come faster than the server answers.
  const going = useRef<{ to: [number, number]; at: number } | null>(null);
  const [width, height] = size.map((mm) => Math.max(LEAST, mm * view.scale)) as [number, number];
  const [x, y] = [at[0] * view.scale + view.x, at[1] * view.scale + view.y];
  return (
    <rect
      className={isPicked ? 'is-picked' : undefined}
      x={x - width / 2}
      y={y - height / 2}
      width={width}
      height={height}
      tabIndex={0}
      role="button"
      aria-label={label}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        going.current = null;
        from.current = { x: event.clientX, y: event.clientY };
        onPick();
      }}
      onPointerMove={(event) => {
        if (!from.current) return;
        event.stopPropagation();
        onMove(
          (event.clientX - from.current.x) / view.scale,
          (event.clientY - from.current.y) / view.scale,
          !event.altKey,
        );
      }}
      onPointerUp={(event) => {
        event.stopPropagation();
        const start = from.current;
        from.current = null;
        if (start && (start.x !== event.clientX || start.y !== event.clientY)) onKeep();
      }}
      onKeyDown={(event) => {
        const by = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
        const ways: Partial<Record<string, [number, number]>> = {
          ArrowLeft: [-by, 0],
          ArrowRight: [by, 0],
          ArrowUp: [0, -by],
          ArrowDown: [0, by],
        };
        const way = ways[event.key];
        if (!way) {
          onKey?.(event);
          return;
        }
        event.preventDefault();
        event.stopPropagation();
        onPick();
        const { timeStamp } = event;
        const before =
          going.current && timeStamp - going.current.at < PAUSE ? going.current.to : at;
        const to: [number, number] = [before[0] + way[0], before[1] + way[1]];
        going.current = { to, at: timeStamp };
        onMove(to[0] - at[0], to[1] - at[1], false);
        onKeep();
      }}
    >
      {children}
    </rect>
  );
}

/** Places are kept to a tenth of a millimetre. */
export const tenth = (mm: number) => Math.round(mm * 10) / 10;
