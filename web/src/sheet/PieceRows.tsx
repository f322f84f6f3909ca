/** The job's pieces and how many are wanted of each. */
import { useNavigate } from 'react-router';

import { withChanges, withField } from '../api/fields';
import type { Form, Job, Preview } from '../api/generated/types';
import { CountField } from '../card/CountField';
import { Rows } from '../card/SpecCard';
import { errorsOf } from '../job/StageProps';
import type { JobSession } from '../job/useJobSession';

interface Props {
  id: number;
  session: JobSession;
  preview: Preview;
}

/** A hang tag in the job's card, to be changed into whatever goes with the first piece. */
const another = (job: Job): Job['companions'][number] => ({
  name: `Tag ${job.companions.length + 1}`,
  form: { structure: 'tag-clipped', basis: 'inside', width: 40, height: 80 } as Form,
  stock: job.stock,
  face: job.face && { ...job.face, captions: 'none' },
  copies: job.sheet.copies,
});

export function PieceRows({ id, session, preview }: Props) {
  const navigate = useNavigate();
  const { job } = session;
  const add = () =>
    void session.keep((now) => ({
      ...now,
      companions: [...now.companions, another(now)],
      sheet: { ...now.sheet, kept: null },
    }));
  const remove = (at: number) =>
    void session.keep((now) => ({
      ...now,
      companions: now.companions.filter((_, other) => other !== at),
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
      {preview.pieces.map((piece, at) => {
        const field = at === 0 ? 'sheet.copies' : `companions.${at - 1}.copies`;
        const value = at === 0 ? job.sheet.copies : (job.companions[at - 1]?.copies ?? 0);
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
                  onClick={() => void navigate(`/jobs/${id}/form?piece=${at}`)}
                >
                  open
                </button>
                {at > 0 && (
                  <button type="button" className="plain-button" onClick={() => remove(at - 1)}>
                    remove
                  </button>
                )}
              </p>
            )}
          </div>
        );
      })}
    </Rows>
  );
}
