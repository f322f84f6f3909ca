/** Which inks are looked at, and through what: the same for every drawing below. */
import { createContext } from 'react';

import type { Separation, Shine } from '../api/generated/types';
import type { FlatView } from '../api/views';

export interface SeenInks {
  /** One ink alone, or all together. */
  only: Separation | null;
  /** What shines through ink that has no white beneath it. */
  shine: Shine;
}

export const SeenInks = createContext<SeenInks>({ only: null, shine: 'opaque' });

/** The inks, in the order in which they are printed. */
export const INK_NAMES: Record<Separation, string> = {
  white: 'white',
  colour: 'colour',
  varnish: 'varnish',
  raised: 'raised varnish',
};

/** The inks that a flat is printed in, in their order. */
export function inksOf(flat: FlatView): Separation[] {
  const printed = flat.parts.flatMap(({ art }) => art?.layers ?? []);
  const all = Object.keys(INK_NAMES) as Separation[];
  return all.filter((ink) => printed.some(({ separation }) => separation === ink));
}
