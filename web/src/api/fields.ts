/** Setting fields of a job by their dotted paths, as checks and remedies name them. */
import type { Change, Job } from './generated/types';

type Json = Record<string, unknown>;

/** The job with one field set; what it does not touch stays the same object. */
export function withField(job: Job, field: string, value: unknown): Job {
  return set(job, field.split('.'), value) as unknown as Job;
}

/** The job with several fields set. */
export function withChanges(job: Job, changes: Change[]): Job {
  return changes.reduce((changed, { field, value }) => withField(changed, field, value), job);
}

function set(object: Json, [name, ...rest]: string[], value: unknown): Json {
  if (name === undefined) return object;
  const inner = object[name];
  const next = rest.length > 0 ? set((inner ?? {}) as Json, rest, value) : value;
  if (Array.isArray(object)) {
    return object.map((item: unknown, index) => (index === Number(name) ? next : item)) as never;
  }
  return { ...object, [name]: next };
}
