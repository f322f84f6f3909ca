/** What a maker notes about a picture: where it is from, and how it may be used. */
import { useId, useState } from 'react';
import { Form } from 'react-bootstrap';

import { set } from '../api/fields';
import type { Origin } from '../api/generated/types';
import { Problems } from '../card/Problems';
import type { PieceSession } from '../job/pieces';
import { errorsOf } from '../job/StageProps';

const ENTRIES: { name: keyof Origin; label: string }[] = [
  { name: 'name', label: 'Name' },
  { name: 'source', label: 'Source' },
  { name: 'licence', label: 'Licence' },
  { name: 'note', label: 'Note' },
];

interface Props {
  session: PieceSession;
  path: string;
  origin: Origin;
}

export function OriginFields({ session, path, origin }: Props) {
  return ENTRIES.map(({ name, label }) => (
    <Entry
      key={name}
      field={`${path}.origin.${name}`}
      {...{ label, session }}
      text={origin[name]}
    />
  ));
}

interface EntryProps {
  field: string;
  label: string;
  text: string;
  session: PieceSession;
}

function Entry({ field, label, text, session }: EntryProps) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const keep = () => {
    if (typed === null) return;
    void session.keep(set(field, typed)).then((isKept) => {
      if (isKept) setTyped(null);
    });
  };
  return (
    <div className="row-field origin-entry">
      <label htmlFor={id}>{label}</label>
      <Form.Control
        id={id}
        size="sm"
        value={typed ?? text}
        data-pending={typed !== null || undefined}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === 'Enter') keep();
          if (event.key === 'Escape') setTyped(null);
        }}
      />
      <Problems errors={errorsOf(session, field)} onApply={() => undefined} />
    </div>
  );
}
