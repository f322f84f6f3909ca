/** A limit: its name and state, its figures, its gauge, and what they mean. */
import { Button } from 'react-bootstrap';

import type { Check } from '../api/generated/types';
import { Gauge } from './Gauge';
import { StateMark } from './StateMark';

interface Props {
  check: Check;
  isChosen: boolean;
  onChoose: () => void;
}

export function Limit({ check, isChosen, onChoose }: Props) {
  return (
    <li>
      <Button
        variant="bare"
        className={`limit limit-${check.state}`}
        aria-pressed={isChosen}
        onClick={onChoose}
      >
        <span className="limit-label">
          <span title={check.label}>{check.label}</span>
          <StateMark state={check.state} />
        </span>
        <span className="limit-figures">
          <b>{check.value_text}</b> {check.bound_text}
        </span>
        {check.gauge ? (
          <Gauge numbers={check.gauge} state={check.state} />
        ) : (
          <span className="gauge-none" />
        )}
        <span className="limit-verdict">{check.verdict}</span>
      </Button>
    </li>
  );
}
