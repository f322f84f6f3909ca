/** What every stage of the route works with. */
import type { ReactNode } from 'react';

import type { Change, Check, InputError, UnitInfo, Workshop } from '../api/generated/types';
import type { PieceView, Preview } from '../api/views';
import type { PieceSession } from './pieces';
import type { JobSession } from './useJobSession';

export interface StageProps {
  id: number;
  session: PieceSession;
  preview: Preview;
  /** The piece that is worked on in Form and Face. */
  piece: PieceView;
  workshop: Workshop;
  unit: UnitInfo;
  /** The limit that the user points at. */
  chosen: Check | null;
  /** The remedies of that limit, for the spec card. */
  notice: ReactNode;
  onChanges: (changes: Change[]) => void;
  /** Limits that only the stage knows, for the fit strip. */
  onMore: (checks: Check[]) => void;
}

/** The errors about one field. */
export const errorsOf = (session: JobSession, field: string): InputError[] =>
  session.errors.filter((error) => error.field === field);
