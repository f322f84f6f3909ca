/** Handles by which add-ons are dragged on the flat; arrow keys nudge them. */
import { useRef } from 'react';

import { withChanges } from '../api/fields';
import type { AddOn, PanelView } from '../api/generated/types';
import type { View } from '../board/view';
import type { JobSession } from '../job/useJobSession';

interface Props {
  session: JobSession;
  panels: PanelView[];
  view: View;
  picked: number | null;
  onPick: (index: number) => void;
}

/** Positions are kept to a tenth of a millimetre. */
const round = (mm: number) => Math.round(mm * 10) / 10;

export function AddOnHandles({ session, panels, view, picked, onPick }: Props) {
  const drag = useRef<{ x: number; y: number; from: AddOn } | null>(null);
  const addOns = session.job.form.add_ons ?? [];
  const move = (index: number, across: number, along: number) =>
    session.propose((job) =>
      withChanges(job, [
        { field: `form.add_ons.${index}.across`, value: round(across) },
        { field: `form.add_ons.${index}.along`, value: round(along) },
      ]),
    );
  return (
    <g className="add-on-handles">
      {addOns.map((addOn, index) => {
        const panel = panels.find(({ name }) => name === addOn.panel);
        if (!panel) return null;
        const isStrip = addOn.kind === 'tear-strip';
        const size = [
          isStrip ? panel.size[0] : addOn.width,
          ['window-round', 'hang-hole'].includes(addOn.kind) ? addOn.width : addOn.height,
        ].map((mm) => Math.max(14, mm * view.scale)) as [number, number];
        const x = (panel.centre[0] + addOn.across) * view.scale + view.x;
        const y = (panel.centre[1] + addOn.along) * view.scale + view.y;
        return (
          <rect
            key={index}
            className={picked === index ? 'is-picked' : undefined}
            x={x - size[0] / 2}
            y={y - size[1] / 2}
            width={size[0]}
            height={size[1]}
            tabIndex={0}
            role="button"
            aria-label={`Move ${addOn.kind.replaceAll('-', ' ')} on ${addOn.panel}`}
            onPointerDown={(event) => {
              event.stopPropagation();
              event.currentTarget.setPointerCapture(event.pointerId);
              drag.current = { x: event.clientX, y: event.clientY, from: addOn };
              onPick(index);
            }}
            onPointerMove={(event) => {
              const start = drag.current;
              if (!start) return;
              event.stopPropagation();
              move(
                index,
                isStrip ? 0 : start.from.across + (event.clientX - start.x) / view.scale,
                start.from.along + (event.clientY - start.y) / view.scale,
              );
            }}
            onPointerUp={(event) => {
              event.stopPropagation();
              const start = drag.current;
              drag.current = null;
              if (start && (start.x !== event.clientX || start.y !== event.clientY)) {
                void session.keep();
              }
            }}
            onKeyDown={(event) => {
              const by = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
              const way: Partial<Record<string, [number, number]>> = {
                ArrowLeft: [-by, 0],
                ArrowRight: [by, 0],
                ArrowUp: [0, -by],
                ArrowDown: [0, by],
              };
              const found = way[event.key];
              if (!found) return;
              event.preventDefault();
              event.stopPropagation();
              move(index, isStrip ? 0 : addOn.across + found[0], addOn.along + found[1]);
              void session.keep();
            }}
          />
        );
      })}
    </g>
  );
}
