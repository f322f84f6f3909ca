/** The workshop's records as choices in a list: those at hand first, retired ones only while they are used. */
import type { Keeping } from '../api/generated/types';

type Records = { [id: string]: { name: string; keeping: Keeping } | undefined };

const RANK: Record<Keeping, number> = { 'at-hand': 0, kept: 1, retired: 2 };

export function named(records: Records, used?: string | null) {
  return Object.entries(records)
    .filter(([id, record]) => record?.keeping !== 'retired' || id === used)
    .sort(([, a], [, b]) => RANK[a?.keeping ?? 'kept'] - RANK[b?.keeping ?? 'kept'])
    .map(([value, record]) => ({
      value,
      label: `${record?.name ?? value}${record?.keeping === 'retired' ? ' (retired)' : ''}`,
    }));
}

/** The same, with a first choice that means none. */
export function namedOr(none: string, records: Records, used?: string | null) {
  return [{ value: '', label: none }, ...named(records, used)];
}
