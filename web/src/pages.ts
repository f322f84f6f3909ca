/** The pages behind the list of jobs: brought when they are first asked for, or once the list is there. */
import { lazy } from 'react';

const handbook = () => import('./handbook/HandbookPage');
const job = () => import('./job/JobPage');
const bin = () => import('./jobs/BinPage');
const catalogue = () => import('./catalogue/NewJobPage');
const logbook = () => import('./logbook/LogbookPage');
const queue = () => import('./queue/QueuePage');
const workshop = () => import('./workshop/WorkshopPage');

export const BinPage = lazy(async () => ({ default: (await bin()).BinPage }));
export const HandbookPage = lazy(async () => ({ default: (await handbook()).HandbookPage }));
export const JobPage = lazy(async () => ({ default: (await job()).JobPage }));
export const LogbookPage = lazy(async () => ({ default: (await logbook()).LogbookPage }));
export const NewJobPage = lazy(async () => ({ default: (await catalogue()).NewJobPage }));
export const QueuePage = lazy(async () => ({ default: (await queue()).QueuePage }));
export const WorkshopPage = lazy(async () => ({ default: (await workshop()).WorkshopPage }));

/** Brings all of them, so that they are there when the server has gone. */
export async function fetchAhead() {
  for (const page of [job, catalogue, workshop, handbook, logbook, queue, bin]) {
    await page().catch(() => undefined);
  }
}
