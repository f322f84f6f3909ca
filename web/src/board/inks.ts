/** Which inks are looked at, and through what: the same for every drawing below. */
import { createContext } from 'react';

import type { Separation, Shine } from '../api/generated/types';

export interface SeenInks {
  /** One ink alone, or all together. */
  only: Separation | null;
  /** What shines through ink that has no white beneath it. */
  shine: Shine;
}

export const SeenInks = createContext<SeenInks>({ only: null, shine: 'opaque' });

export const INK_NAMES: Record<Separation, string> = {
  white: 'white',
  colour: 'colour',
  varnish: 'varnish',
  raised: 'raised varnish',
};
