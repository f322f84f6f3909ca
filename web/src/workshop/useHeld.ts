/**
 * Changes of records that wait until the user has seen which jobs they reach. They outlive a look at another record
 * and a reload of the page.
 */
import { useState } from 'react';

import type { Record as Entry } from '../api/generated/types';

export interface Held {
  record: Entry;
  /** The record that was changed, as JSON. */
  base: string;
}

export interface HeldChanges {
  /** By kind and id, such as `stocks/kraft-300`. */
  all: Partial<Record<string, Held>>;
  /** Holds a change, or drops it. */
  hold: (key: string, change: Held | null) => void;
}

const KEPT_AS = 'workshop-held';

function kept(): HeldChanges['all'] {
  try {
    return (JSON.parse(sessionStorage.getItem(KEPT_AS) ?? '{}') as HeldChanges['all'] | null) ?? {};
  } catch {
    return {};
  }
}

export function useHeld(): HeldChanges {
  const [all, setAll] = useState(kept);
  const hold = (key: string, change: Held | null) => {
    const others = Object.entries(kept()).filter(([other]) => other !== key);
    const next = Object.fromEntries(change ? [...others, [key, change]] : others);
    sessionStorage.setItem(KEPT_AS, JSON.stringify(next));
    setAll(next);
  };
  return { all, hold };
}
