/** One piece laid flat on the drawing board, named under the pointer. */
import { token } from '../style/token';
import { type ReactNode, useState } from 'react';

import type { StageProps } from '../job/StageProps';
import { Board } from './Board';
import { FlatDrawing } from './FlatDrawing';
import type { Box, Padding, View } from './view';

interface Props {
  stage: Pick<StageProps, 'session' | 'piece' | 'workshop' | 'unit' | 'chosen'>;
  label: string;
  padding: Padding;
  /** What is fitted, where that is more than the blank. */
  box?: Box;
  /** True to show what is printed. */
  isPrinted: boolean;
  /** The panel that is pointed at elsewhere. */
  lit?: string | null;
  onLit?: (panel: string | null) => void;
  overlay?: (view: View) => ReactNode;
  /** A file was dropped on a panel, or beside them all. */
  onDropFile?: (file: File, panel: string | null) => void;
  children?: ReactNode;
}

export function FlatBoard({
  stage,
  label,
  padding,
  box,
  isPrinted,
  lit,
  onLit,
  overlay,
  onDropFile,
  children,
}: Props) {
  const [hovered, setHovered] = useState<string | null>(null);
  const { session, piece, workshop, unit, chosen } = stage;
  const [width, height] = piece.flat.size;
  const over = (event: React.DragEvent) => {
    if (event.dataTransfer.types.includes('Files')) event.preventDefault();
  };
  const drop = (event: React.DragEvent) => {
    const file = event.dataTransfer.files[0];
    if (!file) return;
    event.preventDefault();
    // Handles and lines lie over the panels.
    const under = document.elementsFromPoint(event.clientX, event.clientY);
    const panel = under.find((element) => element.hasAttribute('data-panel'));
    onDropFile?.(file, panel?.getAttribute('data-panel') ?? null);
  };
  const hover = (name: string | null) => {
    setHovered(name);
    onLit?.(name);
  };
  return (
    <div
      className={`board-wrap${session.isCurrent ? '' : ' is-stale'}`}
      {...(onDropFile ? { onDragOver: over, onDrop: drop } : {})}
    >
      <Board
        label={label}
        box={box ?? { x: 0, y: 0, width, height }}
        padding={padding}
        unit={unit}
        hint={hovered}
        drawing={
          <FlatDrawing
            flat={piece.flat}
            isPrinted={isPrinted}
            colour={workshop.stocks[session.own.stock]?.colour ?? token('card-bare')}
            hovered={lit ?? hovered}
            onHover={hover}
            place={chosen?.place?.drawing === 'flat' ? chosen.place.path : null}
          />
        }
        {...(overlay ? { overlay } : {})}
      >
        {!session.isCurrent && session.errors.length > 0 && (
          <p className="stale-note">The last good drawing: a figure cannot be used</p>
        )}
        {children}
      </Board>
    </div>
  );
}
