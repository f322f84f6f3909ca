/** Which of the job's pieces is worked on, where there are several. */
import type { PieceView } from '../api/generated/types';
import { rove } from '../card/rove';

interface Props {
  pieces: PieceView[];
  piece: number;
  onPick: (piece: number) => void;
}

export function PiecePicker({ pieces, piece, onPick }: Props) {
  if (pieces.length < 2) return null;
  return (
    <div className="piece-picker" role="tablist" aria-label="Piece">
      {pieces.map(({ name }, at) => (
        <button
          key={name + String(at)}
          type="button"
          role="tab"
          id={`piece-tab-${at}`}
          aria-selected={at === piece}
          aria-controls="piece-panel"
          tabIndex={at === piece ? 0 : -1}
          onClick={() => onPick(at)}
          onKeyDown={rove(onPick)}
        >
          {name}
        </button>
      ))}
    </div>
  );
}
