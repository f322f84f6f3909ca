/** What a limit says in full, and the ways out of it. */
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';

import type { Change, Check, Remedy } from '../api/generated/types';
import { pageAbout } from '../handbook/pages';
import { StateMark } from './StateMark';

interface Props {
  check: Check;
  onApply: (changes: Change[]) => void;
  onClose: () => void;
}

export function Remedies({ check, onApply, onClose }: Props) {
  const page = pageAbout(check.id, check.stage);
  return (
    <section className={`remedies remedies-${check.state}`} aria-label={`About ${check.label}`}>
      <header>
        <StateMark state={check.state} />
        <h3>{check.label}</h3>
        <Button variant="plain" onClick={onClose} aria-label="Close">
          ×
        </Button>
      </header>
      <p>
        <b className="figure">{check.value_text}</b> {check.bound_text}: {check.verdict}
      </p>
      {check.remedies.length > 0 && (
        <ul>
          {check.remedies.map((remedy) => (
            <li key={remedy.text}>
              <Way remedy={remedy} onApply={onApply} />
            </li>
          ))}
        </ul>
      )}
      {page && (
        <p className="remedies-page">
          In the handbook: <Link to={`/handbook/${page.id}`}>{page.title}</Link>
        </p>
      )}
    </section>
  );
}

/** A remedy: a button where one can carry it out, advice where a person must. */
export function Way({ remedy, onApply }: { remedy: Remedy; onApply: (changes: Change[]) => void }) {
  if (remedy.changes.length === 0) return <span className="advice">{remedy.text}</span>;
  return (
    <Button variant="outline-primary" size="sm" onClick={() => onApply(remedy.changes)}>
      {remedy.text}
    </Button>
  );
}
