/** A job's session as one of its pieces sees it. */
import { gatheredOf } from '../api/forms';
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
export function firstCard(job: Job): string {
  // What a card holds is of the card's stock.
  const members = job.pieces.flatMap(({ form }) => gatheredOf(form)?.members ?? []);
  const first = job.pieces.find(({ id }) => !members.some(({ piece }) => piece === id));
  return (first ?? job.pieces[0])?.stock ?? '';
}
