/**
 * One piece of a job as if it were the whole: its form, card, print and copies stand where the first
 * piece has them, so that Form and Face work on any of them alike.
 */
import type { Change, InputError, Job } from '../api/generated/types';
import type { JobSession } from './useJobSession';

const below = (piece: number) => `companions.${piece - 1}.`;

/** The job seen from one of its pieces; 0 is the job itself. */
export function seenFrom(job: Job, piece: number): Job {
  const other = job.companions[piece - 1];
  if (!other) return job;
  const { name, form, stock, face, copies } = other;
  return { ...job, name, form, stock, face, sheet: { ...job.sheet, copies } };
}

/** The whole job again, after a change to what was seen from one of its pieces. */
function putBack(job: Job, piece: number, seen: Job): Job {
  const others = job.companions;
  if (!others[piece - 1]) return seen;
  const { name, form, stock, face, sheet } = seen;
  const changed = { name, form, stock, face, copies: sheet.copies };
  return {
    ...job,
    unit: seen.unit,
    sheet: { ...sheet, copies: job.sheet.copies },
    companions: others.map((other, at) => (at === piece - 1 ? changed : other)),
  };
}

const OWN = /^(name|form|stock|face)\b/;

/** The errors of one piece, their fields as they are seen from it. */
function errorsSeen(errors: InputError[], piece: number): InputError[] {
  if (piece === 0) return errors.filter((error) => !error.field.startsWith('companions.'));
  const strip = (field: string) =>
    field.startsWith(below(piece)) ? field.slice(below(piece).length) : field;
  const stripped = (change: Change) => ({ ...change, field: strip(change.field) });
  return errors
    .filter((error) => !OWN.test(error.field))
    .map((error) => ({
      ...error,
      field: strip(error.field),
      remedy: { ...error.remedy, changes: error.remedy.changes.map(stripped) },
    }));
}

/** The session as one of the pieces sees it. */
export function sessionOf(session: JobSession, piece: number): JobSession {
  if (piece === 0 && session.job.companions.length === 0) return session;
  type Step = (job: Job) => Job;
  const through =
    (change: Step): Step =>
    (job) =>
      putBack(job, piece, change(seenFrom(job, piece)));
  return {
    ...session,
    job: seenFrom(session.job, piece),
    errors: errorsSeen(session.errors, piece),
    propose: (change) => session.propose(through(change)),
    keep: (change) => session.keep(change && through(change)),
  };
}
