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

/** An id such as `p3` that none of these has yet. */
export function freeId(letter: string, members: { id: string }[]): string {
  let number = members.length + 1;
  while (members.some(({ id }) => id === letter + String(number))) number += 1;
  return letter + String(number);
}

/** The card that a run of sheets is of, where nothing else is said. */
export const firstCard = (job: Job): string => job.pieces[0]?.stock ?? '';
