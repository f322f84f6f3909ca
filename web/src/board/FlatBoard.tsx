/** One piece laid flat on the drawing board, named under the pointer. */
import { type ReactNode, useState } from 'react';

import type { StageProps } from '../job/StageProps';
import { Board } from './Board';
import { FlatDrawing } from './FlatDrawing';
import type { Padding, View } from './view';

interface Props {
  stage: Pick<StageProps, 'session' | 'piece' | 'workshop' | 'unit' | 'chosen'>;
  label: string;
  padding: Padding;
  /** True to show what is printed. */
  isPrinted: boolean;
  /** The panel that is pointed at elsewhere. */
  lit?: string | null;
  onLit?: (panel: string | null) => void;
  overlay?: (view: View) => ReactNode;
  children?: ReactNode;
}

export function FlatBoard({
  stage,
  label,
  padding,
  isPrinted,
  lit,
  onLit,
  overlay,
  children,
}: Props) {
  const [hovered, setHovered] = useState<string | null>(null);
  const { session, piece, workshop, unit, chosen } = stage;
  const [width, height] = piece.flat.size;
  const hover = (name: string | null) => {
    setHovered(name);
    onLit?.(name);
  };
  return (
    <div className={`board-wrap${session.isCurrent ? '' : ' is-stale'}`}>
      <Board
        label={label}
        box={{ x: 0, y: 0, width, height }}
        padding={padding}
        unit={unit}
        hint={hovered}
        drawing={
          <FlatDrawing
            flat={piece.flat}
            isPrinted={isPrinted}
            colour={workshop.stocks[session.job.stock]?.colour ?? '#ffffff'}
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
