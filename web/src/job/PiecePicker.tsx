/** Which of the job's pieces is worked on, where there are several. */
import { Button } from 'react-bootstrap';

import type { PieceView } from '../api/views';
import { rove } from '../card/rove';

interface Props {
  pieces: PieceView[];
  piece: string;
  onPick: (piece: string) => void;
}

export function PiecePicker({ pieces, piece, onPick }: Props) {
  if (pieces.length < 2) return null;
  return (
    <div className="piece-picker" role="tablist" aria-label="Piece">
      {pieces.map(({ id, name }) => (
        <Button
          variant="bare"
          key={id}
          role="tab"
          id={`piece-tab-${id}`}
          aria-selected={id === piece}
          aria-controls="piece-panel"
          tabIndex={id === piece ? 0 : -1}
          onClick={() => onPick(id)}
          onKeyDown={rove((at) => onPick(pieces[at]?.id ?? piece))}
        >
          {name}
        </Button>
      ))}
    </div>
  );
}
