/** What units of force are written as. */
import type { ForceUnit } from '../api/generated/types';

export const SYMBOLS: Record<ForceUnit, string> = { newtons: 'N', grams: 'g', steps: 'steps' };
