/** Changes of a job's fields by their dotted paths; the server makes them. */
import type { FieldChange } from './generated/types';

/** Sets a field; `null` goes back to the trade's default. */
export const set = (field: string, value: unknown): FieldChange => ({ field, value });

/** Puts a member at the end of a list. */
export const add = (field: string, value: unknown): FieldChange => ({ field, value, doing: 'add' });

/** Takes a member out of its list. */
export const remove = (field: string): FieldChange => ({ field, doing: 'remove' });

/** Moves a member so many places on in its list, or back. */
export const move = (field: string, by: number): FieldChange => ({
  field,
  value: by,
  doing: 'move',
});

const isSet = ({ doing }: FieldChange) => (doing ?? 'set') === 'set';

/** What a field of a job is, by its path; `undefined` where there is none. */
export function valueAt(job: unknown, field: string): unknown {
  return field.split('.').reduce<unknown>((inside, name) => {
    if (!Array.isArray(inside)) return (inside as Record<string, unknown> | null)?.[name];
    const members = inside as { id?: string }[];
    return members.find(({ id }) => id === name) ?? members[Number(name)];
  }, job);
}

/** What a field comes to once these changes are made, those of what is in it too. */
export function valueAfter(job: unknown, changes: FieldChange[], field: string): unknown {
  const last = changes.findLastIndex((change) => isSet(change) && change.field === field);
  const whole = last === -1 ? valueAt(job, field) : changes[last]?.value;
  const within = changes
    .slice(last + 1)
    .filter((change) => isSet(change) && change.field.startsWith(`${field}.`));
  if (within.length === 0) return whole;
  const after = { whole: structuredClone(whole) };
  for (const change of within) {
    const names = `whole${change.field.slice(field.length)}`.split('.');
    const name = names.pop() as string;
    const inside = valueAt(after, names.join('.')) as Record<string, unknown> | null | undefined;
    if (inside) inside[name] = change.value;
  }
  return after.whole;
}

/** True where setting one field leaves the other as it is, whichever comes first. */
const areApart = (one: string, other: string) =>
  !`${one}.`.startsWith(`${other}.`) && !`${other}.`.startsWith(`${one}.`);

/** Changes with one more: what it sets anew is set once, so that a long drag stays one change. */
export function withChange(changes: FieldChange[], next: FieldChange): FieldChange[] {
  if (isSet(next)) {
    for (let at = changes.length - 1; at >= 0; at -= 1) {
      const known = changes[at] as FieldChange;
      if (!isSet(known)) break;
      if (known.field === next.field) return changes.with(at, next);
      if (!areApart(known.field, next.field)) break;
    }
  }
  return [...changes, next];
}
