/** What is wrong with a field, next to it, with the way out. */
import { Button } from 'react-bootstrap';

import type { InputError } from '../api/generated/types';

interface Props {
  id?: string;
  complaint?: string | null;
  errors: InputError[];
  onApply: (error: InputError) => void;
}

export function Problems({ id, complaint, errors, onApply }: Props) {
  if (complaint == null && errors.length === 0) return null;
  return (
    <div className="problems" id={id} role="alert">
      {complaint != null && <p>{complaint}</p>}
      {errors.map((error) => (
        <p key={error.message}>
          {error.message}.{' '}
          {error.remedy.changes.length > 0 ? (
            <Button variant="plain" onClick={() => onApply(error)}>
              {error.remedy.text}
            </Button>
          ) : (
            error.remedy.text
          )}
        </p>
      ))}
    </div>
  );
}
