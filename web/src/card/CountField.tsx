/** A whole number, typed or stepped. */
import { useId, useState } from 'react';

import type { InputError } from '../api/generated/types';
import { Problems } from './Problems';

interface Props {
  label: string;
  value: number;
  errors: InputError[];
  onTry: (count: number) => void;
  onKeep: () => Promise<boolean>;
  onApply: (error: InputError) => void;
}

export function CountField({ label, value, errors, onTry, onKeep, onApply }: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const whole = typed === null || /^\s*\d{1,6}\s*$/.test(typed);
  const attempt = (text: string) => {
    setTyped(text);
    if (/^\s*\d{1,6}\s*$/.test(text)) onTry(Number(text));
  };
  const finish = async () => {
    if (typed === null || !whole) return;
    if (await onKeep()) setTyped((now) => (now === typed ? null : now));
  };
  const apply = (error: InputError) => {
    setTyped(null);
    onApply(error);
  };
  const step = (by: number) => {
    const from = typed !== null && whole ? Number(typed) : value;
    const next = String(Math.max(1, from + by));
    attempt(next);
    void onKeep().then((isKept) => {
      if (isKept) setTyped((now) => (now === next ? null : now));
    });
  };
  const complaint = whole ? null : `“${typed}” is not a whole number: type 1 to 10000`;
  return (
    <div className={`row-field${whole && errors.length === 0 ? '' : ' is-wrong'}`}>
      <label htmlFor={id}>{label}</label>
      <span className="entry">
        <input
          id={id}
          className="figure"
          inputMode="numeric"
          autoComplete="off"
          value={typed ?? String(value)}
          data-pending={typed !== null || undefined}
          aria-invalid={!whole || errors.length > 0}
          onChange={(event) => attempt(event.target.value)}
          onFocus={(event) => event.target.select()}
          onBlur={() => void finish()}
          onKeyDown={(event) => {
            if (event.key === 'Enter') void finish();
            else if (event.key === 'Escape') setTyped(null);
            else if (event.key === 'ArrowUp') step(event.shiftKey ? 10 : 1);
            else if (event.key === 'ArrowDown') step(event.shiftKey ? -10 : -1);
            else return;
            event.preventDefault();
          }}
        />
        <span className="unit" />
      </span>
      <Problems complaint={complaint} errors={errors} onApply={apply} />
    </div>
  );
}
