/** A ratio of the job: typed, or stepped with the arrow keys. */
import { useId, useState } from 'react';

import { set } from '../api/fields';
import { errorsOf } from '../job/StageProps';
import type { JobSession } from '../job/useJobSession';
import { Problems } from './Problems';

interface Props {
  label: string;
  value: number;
  field: string;
  step: number;
  session: JobSession;
}

export function AmountField({ label, value, field, step, session }: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const errors = errorsOf(session, field);
  const number = typed === null ? value : Number(typed.replace(',', '.'));
  const isSound = Number.isFinite(number) && typed?.trim() !== '';
  const complaint = isSound ? null : `“${typed}” is no number: type one such as 1.2`;
  const finish = async () => {
    if (typed === null || !isSound) return;
    if (await session.keep(set(field, number))) setTyped(null);
  };
  const by = (steps: number) => {
    const next = Math.round((number + steps * step) * 1000) / 1000;
    setTyped(null);
    void session.keep(set(field, next));
  };
  return (
    <div className={`row-field${isSound && errors.length === 0 ? '' : ' is-wrong'}`}>
      <label htmlFor={id}>{label}</label>
      <span className="entry">
        <input
          id={id}
          className="figure"
          value={typed ?? String(value)}
          autoComplete="off"
          data-pending={typed !== null || undefined}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={() => void finish()}
          onKeyDown={(event) => {
            if (event.key === 'Enter') void finish();
            else if (event.key === 'Escape') setTyped(null);
            else if (event.key === 'ArrowUp') by(event.shiftKey ? 10 : 1);
            else if (event.key === 'ArrowDown') by(event.shiftKey ? -10 : -1);
            else return;
            event.preventDefault();
          }}
        />
        <span className="unit" />
      </span>
      <Problems
        complaint={complaint}
        errors={errors}
        onApply={(error) => {
          setTyped(null);
          void session.keep(...error.remedy.changes);
        }}
      />
    </div>
  );
}
