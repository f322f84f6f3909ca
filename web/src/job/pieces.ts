/** A job's session as one of its pieces sees it. */
import type { Job, JobPiece } from '../api/generated/types';
import type { JobSession } from './useJobSession';

export interface PieceSession extends JobSession {
  /** The piece that is worked on. */
  own: JobPiece;
  /** The path in the job of one of the piece's fields. */
  at: (field: string) => string;
}

export function sessionOf(session: JobSession, own: JobPiece): PieceSession {
  return { ...session, own, at: (field) => `pieces.${own.id}.${field}` };
}

/** The card that a run of sheets is of, where nothing else is said. */
export const firstCard = (job: Job): string => job.pieces[0]?.stock ?? '';
