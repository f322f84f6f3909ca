/** The job's pieces and how many are wanted of each. */
import { Button } from 'react-bootstrap';

import { useNavigate } from 'react-router';

import { add, remove, set } from '../api/fields';
import type { Preview } from '../api/views';
import { CountField } from '../card/CountField';
import { Rows } from '../card/SpecCard';
import { errorsOf } from '../job/StageProps';
import type { JobSession } from '../job/useJobSession';

interface Props {
  id: number;
  session: JobSession;
  preview: Preview;
}

export function PieceRows({ id, session, preview }: Props) {
  const navigate = useNavigate();
  const { job } = session;
  const open = (piece: string) => void navigate(`/jobs/${id}/form?piece=${piece}`);
  const addOne = () => void session.keep(add('pieces', { ...preview.another, id: undefined }));
  const addCard = () => void session.keep(add('pieces', { ...preview.card, id: undefined }));
  const removeOne = (piece: string) => void session.keep(remove(`pieces.${piece}`));
  return (
    <Rows
      title="Pieces"
      aside={
        <>
          {preview.card && (
            <Button variant="plain" onClick={addCard}>
              a sticker card
            </Button>
          )}
          <Button variant="plain" onClick={addOne}>
            add a piece
          </Button>
        </>
      }
    >
      {preview.pieces.map((piece) => {
        const field = `pieces.${piece.id}.copies`;
        const value = job.pieces.find(({ id: known }) => known === piece.id)?.copies ?? 0;
        const alone = preview.pieces.length === 1;
        const holder = preview.pieces.find(({ id: known }) => known === piece.held_by);
        if (holder)
          return (
            <div key={field} className="piece-row">
              <p className="piece-note">
                {piece.name}: on {holder.name}
                <Button variant="plain" onClick={() => open(piece.id)}>
                  open
                </Button>
              </p>
            </div>
          );
        return (
          <div key={field} className="piece-row">
            <CountField
              label={alone ? 'Copies wanted' : piece.name}
              value={value}
              errors={errorsOf(session, field)}
              onTry={(count) => session.propose(set(field, count))}
              onKeep={() => session.keep()}
              onApply={(error) => void session.keep(...error.remedy.changes)}
            />
            {!alone && (
              <p className="piece-note">
                {piece.laid} laid
                <Button variant="plain" onClick={() => open(piece.id)}>
                  open
                </Button>
                <Button variant="plain" onClick={() => removeOne(piece.id)}>
                  remove
                </Button>
              </p>
            )}
          </div>
        );
      })}
    </Rows>
  );
}
