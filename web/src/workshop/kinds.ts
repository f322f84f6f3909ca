/** The kinds of records, what they are called, and what a new one starts as. */
import type { Record as Entry, RecordKind, Workshop } from '../api/generated/types';

export const KINDS: { kind: RecordKind; name: string; one: string; about: string }[] = [
  { kind: 'stocks', name: 'Stock', one: 'stock', about: 'Card and paper, as it is kept.' },
  { kind: 'printers', name: 'Printers', one: 'printer', about: 'What they cannot print on.' },
  {
    kind: 'cutters',
    name: 'Cutters',
    one: 'cutter',
    about: 'What they reach, and how they find the sheet.',
  },
  { kind: 'carriers', name: 'Carriers', one: 'carrier', about: 'What holds the sheet.' },
  {
    kind: 'mark_sets',
    name: 'Marks',
    one: 'mark set',
    about: 'By which a cutter finds a printed sheet.',
  },
  {
    kind: 'recipes',
    name: 'Recipes',
    one: 'recipe',
    about: 'Settings that work a kind of line on a card.',
  },
  {
    kind: 'print_recipes',
    name: 'Printing',
    one: 'printing recipe',
    about: 'How a card is printed by a printer.',
  },
];

export const asKind = (text: string | undefined): RecordKind | null =>
  KINDS.find(({ kind }) => kind === text)?.kind ?? null;

/** The records of a kind, those at hand first and retired ones last. */
export function recordsOf(workshop: Workshop, kind: RecordKind): { id: string; record: Entry }[] {
  const rank = { 'at-hand': 0, kept: 1, retired: 2 };
  const kept: Record<string, Omit<Entry, 'kind'> | undefined> = workshop[kind] ?? {};
  return Object.entries(kept)
    .flatMap(([id, record]) => (record ? [{ id, record: { kind, ...record } as Entry }] : []))
    .sort(
      (a, b) =>
        rank[a.record.keeping] - rank[b.record.keeping] ||
        a.record.name.localeCompare(b.record.name),
    );
}
