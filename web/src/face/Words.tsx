/** Words that are typed, and the columns of a list to put in between; saved after a pause. */
import { useEffect, useId, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import { set } from '../api/fields';
import { Problems } from '../card/Problems';
import { errorsOf } from '../job/StageProps';
import type { PieceSession } from '../job/pieces';

interface Props {
  words: string;
  session: PieceSession;
  /** The field of what has the words. */
  path: string;
  /** True where each copy may have words of its own, out of a list. */
  hasColumns?: boolean;
}

/** After so long a pause words are saved, ms. */
const PAUSE = 600;

export function Words({ words: kept, session, path, hasColumns = true }: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const pause = useRef<number | undefined>(undefined);
  useEffect(() => () => window.clearTimeout(pause.current), []);
  const errors = errorsOf(session, `${path}.words`);
  const finish = async (words: string) => {
    window.clearTimeout(pause.current);
    if (await session.keep(set(`${path}.words`, words))) {
      setTyped((now) => (now === words ? null : now));
    }
  };
  return (
    <div className="words">
      <label htmlFor={id}>Words</label>
      <textarea
        id={id}
        rows={3}
        value={typed ?? kept}
        spellCheck={false}
        data-pending={typed !== null || undefined}
        onChange={(event) => {
          const words = event.target.value;
          setTyped(words);
          session.propose(set(`${path}.words`, words));
          window.clearTimeout(pause.current);
          pause.current = window.setTimeout(() => void finish(words), PAUSE);
        }}
        onBlur={() => {
          if (typed !== null) void finish(typed);
        }}
      />
      {hasColumns && (session.own.list?.columns ?? []).length > 0 && (
        <div className="columns" role="group" aria-label="Put a column in">
          {session.own.list?.columns.map((name) => (
            <Button
              key={name}
              variant="plain"
              aria-label={`Put ${name} in`}
              onClick={() => {
                const words = `${typed ?? kept}{${name}}`;
                setTyped(words);
                void finish(words);
              }}
            >
              {`{${name}}`}
            </Button>
          ))}
        </div>
      )}
      <Problems errors={errors} onApply={() => undefined} />
    </div>
  );
}
