/** A few choices side by side, of which one holds. */
import { Button, ButtonGroup } from 'react-bootstrap';

import { rove } from './rove';

export interface SwitchProps<T extends string> {
  label: string;
  value: T;
  choices: { value: T; label: string }[];
  onChoose: (value: T) => void;
}

export function Switch<T extends string>({ label, value, choices, onChoose }: SwitchProps<T>) {
  return (
    <ButtonGroup className="switch" role="radiogroup" aria-label={label}>
      {choices.map((choice) => (
        <Button
          variant="bare"
          key={choice.value}
          role="radio"
          aria-checked={choice.value === value}
          tabIndex={choice.value === value ? 0 : -1}
          onClick={() => onChoose(choice.value)}
          onKeyDown={rove((at) => onChoose(choices[at]?.value ?? value))}
        >
          {choice.label}
        </Button>
      ))}
    </ButtonGroup>
  );
}
