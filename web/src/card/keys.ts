/** A key for each entry of a list that entries are taken out of: by what it is, and how many of it came before.
 * By place alone, whoever clicks while one is taken out would hit the next entry. */
export function keysOf<T>(entries: readonly T[], name: (entry: T) => string): string[] {
  const seen = new Map<string, number>();
  return entries.map((entry) => {
    const own = name(entry);
    const before = seen.get(own) ?? 0;
    seen.set(own, before + 1);
    return `${own} ${before}`;
  });
}
