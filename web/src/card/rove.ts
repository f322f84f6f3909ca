/** Arrow keys, Home and End among the controls of a group, of which one is in the tab order. */
import type { KeyboardEvent } from 'react';

/** A key handler that moves the focus to a neighbour and chooses it by its place. */
export function rove(choose: (at: number) => void) {
  return (event: KeyboardEvent<HTMLElement>) => {
    const all = [...(event.currentTarget.parentElement?.children ?? [])] as HTMLElement[];
    const here = all.indexOf(event.currentTarget);
    const last = all.length - 1;
    const goals: Partial<Record<string, number>> = {
      ArrowRight: here === last ? 0 : here + 1,
      ArrowDown: here === last ? 0 : here + 1,
      ArrowLeft: here === 0 ? last : here - 1,
      ArrowUp: here === 0 ? last : here - 1,
      Home: 0,
      End: last,
    };
    const goal = goals[event.key];
    if (goal === undefined || event.altKey || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    all[goal]?.focus();
    choose(goal);
  };
}
