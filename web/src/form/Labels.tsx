/** The words on labels, one to a line. */
import { useState } from 'react';
import { Form } from 'react-bootstrap';

import { set } from '../api/fields';
import type { FlatView } from '../api/views';
import { Problems } from '../card/Problems';
import { Rows } from '../card/SpecCard';
import { errorsOf } from '../job/StageProps';
import type { PieceSession } from '../job/pieces';

export function Labels({ session, flat }: { session: PieceSession; flat: FlatView }) {
  const [typed, setTyped] = useState<string | null>(null);
  if (flat.labels.length === 0) return null;
  const saved = flat.labels.map(({ text }) => text).join('\n');
  return (
    <Rows title="Labels">
      <Form.Control
        as="textarea"
        className="labels"
        aria-label="Labels, one to a line"
        rows={Math.min(12, flat.labels.length)}
        value={typed ?? saved}
        data-pending={typed !== null || undefined}
        onChange={(event) => {
          setTyped(event.target.value);
          const lines = event.target.value === '' ? [] : event.target.value.split('\n');
          session.propose(set(session.at('form.labels'), lines));
        }}
        onBlur={() => {
          if (typed === null) return;
          void session.keep().then((isKept) => {
            if (isKept) setTyped(null);
          });
        }}
      />
      <Problems errors={errorsOf(session, session.at('form.labels'))} onApply={() => undefined} />
    </Rows>
  );
}
