/** The stations of the route, in order. */
import type { Stage } from '../api/generated/types';

export const STAGES: { stage: Stage; name: string }[] = [
  { stage: 'form', name: 'Form' },
  { stage: 'face', name: 'Face' },
  { stage: 'sheet', name: 'Sheet' },
  { stage: 'run', name: 'Run' },
];

export const asStage = (text: string | undefined): Stage | null =>
  STAGES.find((known) => known.stage === text)?.stage ?? null;
