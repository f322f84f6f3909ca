/** The pieces that a card holds, and how many of each. */
import { Button, Form } from 'react-bootstrap';
import { useNavigate } from 'react-router';

import { add, remove, set } from '../api/fields';
import type { Gathered, GatheredView } from '../api/generated/types';
import { CountField } from '../card/CountField';
import { Problems } from '../card/Problems';
import { Rows } from '../card/SpecCard';
import { errorsOf, type StageProps } from '../job/StageProps';
import './gathered.css';

interface Props {
  stage: StageProps;
  own: Gathered;
  view: GatheredView;
}

export function MemberRows({ stage, own, view }: Props) {
  const { id, session, preview } = stage;
  const navigate = useNavigate();
  const members = session.at('form.gathered.members');
  const others = preview.pieces.filter((piece) => piece.is_free);
  const errors = errorsOf(session, members);
  return (
    <Rows title="On the card" page="sticker-card">
      {own.members.map((member, at) => {
        const field = `${members}.${at}.count`;
        const seen = view.members.find(({ piece }) => piece === member.piece);
        return (
          <div key={member.piece} className="piece-row">
            <CountField
              label={seen?.name ?? member.piece}
              value={member.count}
              errors={errorsOf(session, field)}
              onTry={(count) => session.propose(set(field, count))}
              onKeep={() => session.keep()}
              onApply={(error) => void session.keep(...error.remedy.changes)}
            />
            <p className="piece-note">
              {seen && seen.left > 0 && (
                <span className="member-left">{seen.left} without room</span>
              )}
              <Button
                variant="plain"
                onClick={() => void navigate(`/jobs/${id}/form?piece=${member.piece}`)}
              >
                open
              </Button>
              {own.members.length > 1 && (
                <Button
                  variant="plain"
                  aria-label={`take off: ${seen?.name ?? member.piece}`}
                  onClick={() => void session.keep(remove(`${members}.${at}`))}
                >
                  take off
                </Button>
              )}
            </p>
          </div>
        );
      })}
      <Problems
        complaint={null}
        errors={errors}
        onApply={(error) => void session.keep(...error.remedy.changes)}
      />
      {others.length > 0 && (
        <Form.Select
          size="sm"
          aria-label="Put a piece on the card"
          value=""
          onChange={({ target: { value } }) =>
            void session.keep(add(members, { piece: value, count: 1 }))
          }
        >
          <option value="">put another piece on it</option>
          {others.map((piece) => (
            <option key={piece.id} value={piece.id}>
              {piece.name}
            </option>
          ))}
        </Form.Select>
      )}
    </Rows>
  );
}
