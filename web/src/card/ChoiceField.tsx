/** A choice from a list, as a ruled row. */
import { useId } from 'react';
import { Form } from 'react-bootstrap';

import type { InputError } from '../api/generated/types';
import { Problems } from './Problems';

interface Props {
  label: string;
  value: string;
  choices: { value: string; label: string }[];
  errors?: InputError[];
  onChoose: (value: string) => void;
}

export function ChoiceField({ label, value, choices, errors = [], onChoose }: Props) {
  const id = useId();
  const known = choices.some((choice) => choice.value === value);
  return (
    <div className="row-field">
      <label htmlFor={id}>{label}</label>
      <Form.Select
        id={id}
        size="sm"
        value={value}
        onChange={(event) => onChoose(event.target.value)}
      >
        {!known && <option value={value}>{value} (not in the workshop)</option>}
        {choices.map((choice) => (
          <option key={choice.value} value={choice.value}>
            {choice.label}
          </option>
        ))}
      </Form.Select>
      <Problems errors={errors} onApply={() => undefined} />
    </div>
  );
}
