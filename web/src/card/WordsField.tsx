/** Words on a ruled row, kept with Enter or on leaving. */
import { useId, useState } from 'react';

import type { InputError } from '../api/generated/types';
import { Problems } from './Problems';

interface Props {
  label: string;
  value: string;
  /** What is shown where there are none. */
  placeholder?: string;
  errors: InputError[];
  onKeep: (words: string) => void;
}

export function WordsField({ label, value, placeholder, errors, onKeep }: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const finish = () => {
    if (typed !== null) onKeep(typed);
    setTyped(null);
  };
  return (
    <div className={`row-field${errors.length > 0 ? ' is-wrong' : ''}`}>
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        className="row-text"
        value={typed ?? value}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === 'Enter') finish();
          else if (event.key === 'Escape') setTyped(null);
        }}
      />
      <Problems errors={errors} onApply={() => undefined} />
    </div>
  );
}
