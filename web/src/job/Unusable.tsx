/** A job whose figures or records cannot be used: says which, and lets the user mend it. */
import { Button } from 'react-bootstrap';

import type { Change, Workshop } from '../api/generated/types';
import { ChoiceField } from '../card/ChoiceField';
import { Way } from '../fit/Remedies';
import { named } from '../sheet/records';
import type { JobSession } from './useJobSession';

interface Props {
  session: JobSession;
  workshop: Workshop;
  onChanges: (changes: Change[]) => void;
}

export function Unusable({ session, workshop, onChanges }: Props) {
  return (
    <main className="message-page">
      <h2>This job cannot be drawn yet</h2>
      <ul>
        {session.errors.map((error) => (
          <li key={error.field + error.message}>
            {error.message}. <Way remedy={error.remedy} onApply={onChanges} />
          </li>
        ))}
      </ul>
      {session.job.pieces.map(({ id, stock }) => (
        <ChoiceField
          key={id}
          label="Stock"
          value={stock}
          choices={named(workshop.stocks)}
          onChoose={(value) => onChanges([{ field: `pieces.${id}.stock`, value }])}
        />
      ))}
      <Button variant="outline-primary" disabled={!session.canUndo} onClick={session.undo}>
        Undo the last change
      </Button>
    </main>
  );
}
