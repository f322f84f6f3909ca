/** A state as a mark and, for those who do not see it, a word. */
import type { State } from '../api/generated/types';

const WORDS: Record<State | 'untouched', string> = {
  fits: 'fits',
  attention: 'needs attention',
  broken: 'broken',
  untouched: 'nothing to check',
};

const SHAPES: Record<State | 'untouched', string> = {
  fits: 'M2.5 7.5L6 11L12 3.5',
  attention: 'M7 2V8.5M7 11.2V12.2',
  broken: 'M3 3L11 11M11 3L3 11',
  untouched: 'M7 6.9V7.1',
};

export function StateMark({ state }: { state: State | null }) {
  const known = state ?? 'untouched';
  return (
    <span className={`state-mark state-${known}`}>
      <svg viewBox="0 0 14 14" aria-hidden="true">
        <path d={SHAPES[known]} />
      </svg>
      <span className="visually-hidden">{WORDS[known]}</span>
    </span>
  );
}

export const stateWord = (state: State | null) => WORDS[state ?? 'untouched'];
