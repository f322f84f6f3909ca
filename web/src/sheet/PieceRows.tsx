/** The job's pieces and how many are wanted of each. */
import { useNavigate } from 'react-router';

import { withChanges, withField } from '../api/fields';
import type { Form, Job, JobPiece, Preview } from '../api/generated/types';
import { CountField } from '../card/CountField';
import { Rows } from '../card/SpecCard';
import { errorsOf } from '../job/StageProps';
import { firstCard, freeId } from '../job/pieces';
import type { JobSession } from '../job/useJobSession';

interface Props {
  id: number;
  session: JobSession;
  preview: Preview;
}

/** A hang tag in the card of the others, to be changed into whatever goes with them. */
const another = (job: Job): JobPiece => ({
  id: freeId('p', job.pieces),
  name: `Tag ${job.pieces.length}`,
  form: { structure: 'tag-clipped', basis: 'inside', width: 40, height: 80 } as Form,
  stock: firstCard(job),
  face: job.pieces[0]?.face
    ? { bleed: job.pieces[0].face.bleed, layers: job.pieces[0].face.layers.filter(isColour) }
    : null,
  copies: job.pieces[0]?.copies ?? 1,
});

const isColour = (layer: { kind: string }) => layer.kind === 'colour';

export function PieceRows({ id, session, preview }: Props) {
  const navigate = useNavigate();
  const { job } = session;
  const add = () =>
    void session.keep((now) => ({
      ...now,
      pieces: [...now.pieces, another(now)],
      sheet: { ...now.sheet, kept: null },
    }));
  const remove = (id: string) =>
    void session.keep((now) => ({
      ...now,
      pieces: now.pieces.filter((piece) => piece.id !== id),
      sheet: { ...now.sheet, kept: null },
    }));
  return (
    <Rows
      title="Pieces"
      aside={
        <button type="button" className="plain-button" onClick={add}>
          add a piece
        </button>
      }
    >
      {preview.pieces.map((piece) => {
        const field = `pieces.${piece.id}.copies`;
        const value = job.pieces.find(({ id: known }) => known === piece.id)?.copies ?? 0;
        const alone = preview.pieces.length === 1;
        return (
          <div key={field} className="piece-row">
            <CountField
              label={alone ? 'Copies wanted' : piece.name}
              value={value}
              errors={errorsOf(session, field)}
              onTry={(count) => session.propose((now) => withField(now, field, count))}
              onKeep={() => session.keep()}
              onApply={(error) =>
                void session.keep((now) => withChanges(now, error.remedy.changes))
              }
            />
            {!alone && (
              <p className="piece-note">
                {piece.laid} laid
                <button
                  type="button"
                  className="plain-button"
                  onClick={() => void navigate(`/jobs/${id}/form?piece=${piece.id}`)}
                >
                  open
                </button>
                <button type="button" className="plain-button" onClick={() => remove(piece.id)}>
                  remove
                </button>
              </p>
            )}
          </div>
        );
      })}
    </Rows>
  );
}
