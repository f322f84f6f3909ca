/**
 * Setting fields of a job by their dotted paths, as checks and remedies name them: a segment is a field's name, or
 * the id of one of a list's members; of members without ids, the place.
 */
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
  const put = (inner: unknown) =>
    rest.length > 0 ? set((inner ?? {}) as Json, rest, value) : value;
  if (Array.isArray(object)) {
    const members = object as unknown[];
    const byId = members.findIndex((member) => (member as Json | null)?.['id'] === name);
    const at = byId < 0 ? Number(name) : byId;
    return members.map((member, index) => (index === at ? put(member) : member)) as never;
  }
  return { ...object, [name]: put(object[name]) };
}
