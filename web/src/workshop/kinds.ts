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
    name: 'Mark sets',
    one: 'mark set',
    about: 'By which a cutter finds a printed sheet.',
  },
];

export const asKind = (text: string | undefined): RecordKind | null =>
  KINDS.find(({ kind }) => kind === text)?.kind ?? null;

/** The records of a kind, those at hand first and retired ones last. */
export function recordsOf(workshop: Workshop, kind: RecordKind): { id: string; record: Entry }[] {
  const rank = { 'at-hand': 0, kept: 1, retired: 2 };
  const kept: Record<string, Omit<Entry, 'kind'> | undefined> = workshop[kind];
  return Object.entries(kept)
    .flatMap(([id, record]) => (record ? [{ id, record: { kind, ...record } as Entry }] : []))
    .sort(
      (a, b) =>
        rank[a.record.keeping] - rank[b.record.keeping] ||
        a.record.name.localeCompare(b.record.name),
    );
}

const ALL = (width: number) => ({ lead: width, trail: width, left: width, right: width });

export const FIRST: { [K in RecordKind]: Extract<Entry, { kind: K }> } = {
  stocks: {
    kind: 'stocks',
    name: 'New card',
    caliper: 0.3,
    grammage: 250,
    grain: 'long',
    colour: '#ffffff',
    sheets: [{ name: 'A4', width: 210, height: 297 }],
    liner: null,
    printable: 'both',
    laminate: null,
    white_edges: false,
    price: null,
    roll: null,
    keeping: 'kept',
  },
  printers: {
    kind: 'printers',
    name: 'New printer',
    width: 216,
    length: 356,
    margins: ALL(4),
    keeping: 'kept',
  },
  cutters: {
    kind: 'cutters',
    name: 'New cutter',
    width: 305,
    length: 610,
    margins: ALL(10),
    lead: 0,
    tail: 0,
    thickest: 0.5,
    force: null,
    stations: [{ name: 'Holder', tools: ['drag-knife', 'creaser'], depth: 'stepped' }],
    finds: { by: 'eye', shapes: ['angle'], smallest: 8, edge: 5, keep_clear: 2 },
    field: 'whole-reach',
    start: 'top-left',
    keeping: 'kept',
  },
  carriers: {
    kind: 'carriers',
    name: 'New carrier',
    width: 330,
    length: 330,
    border: { lead: 12, trail: 12, left: 12, right: 12 },
    keeping: 'kept',
  },
  mark_sets: {
    kind: 'mark_sets',
    name: 'New marks',
    mark: { shape: 'angle', arm: 10, stroke: 1 },
    first: 'top-left',
    tell: 'numeral',
    across: 6.35,
    along: 6.35,
    from: 'paper-edge',
    keep_clear: 2.5,
    keeping: 'kept',
  },
};
