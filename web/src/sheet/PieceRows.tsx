/** The job's pieces and how many are wanted of each. */
import { useState } from 'react';
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
  const hasMore = job.pieces.some(({ spares, pack }) => (spares ?? 0) > 0 || (pack ?? 0) > 0);
  const [isAsked, setAsked] = useState(false);
  const isOpen = isAsked || hasMore;
  const count = (field: string, label: string, value: number) => (
    <CountField
      label={label}
      value={value}
      errors={errorsOf(session, field)}
      onTry={(next) => session.propose(set(field, next))}
      onKeep={() => session.keep()}
      onApply={(error) => void session.keep(...error.remedy.changes)}
    />
  );
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
          {!hasMore && (
            <Button variant="plain" aria-expanded={isOpen} onClick={() => setAsked(!isAsked)}>
              spares, packs
            </Button>
          )}
        </>
      }
    >
      {preview.pieces.map((piece) => {
        const field = `pieces.${piece.id}.copies`;
        const own = job.pieces.find(({ id: known }) => known === piece.id);
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
                <Button variant="plain" onClick={() => removeOne(piece.id)}>
                  remove
                </Button>
              </p>
            </div>
          );
        return (
          <div key={field} className="piece-row">
            {count(field, alone ? 'Copies wanted' : piece.name, own?.copies ?? 0)}
            {isOpen && (
              <>
                {count(`pieces.${piece.id}.spares`, 'Spares beside them', own?.spares ?? 0)}
                {count(`pieces.${piece.id}.pack`, 'In a pack (0: none)', own?.pack ?? 0)}
              </>
            )}
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
