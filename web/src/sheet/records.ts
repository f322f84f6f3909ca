/** The workshop's records as choices in a list. */
export function named(records: Record<string, { name: string } | undefined>) {
  return Object.entries(records).map(([value, record]) => ({
    value,
    label: record?.name ?? value,
  }));
}

/** The same, with a first choice that means none. */
export function namedOr(none: string, records: Record<string, { name: string } | undefined>) {
  return [{ value: '', label: none }, ...named(records)];
}
