/** Which of the job's pieces is worked on, where there are several. */
import type { PieceView } from '../api/generated/types';

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
          aria-selected={at === piece}
          onClick={() => onPick(at)}
        >
          {name}
        </button>
      ))}
    </div>
  );
}
