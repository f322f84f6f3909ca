/** A face's layers, as they are added, ordered and taken away. */
import { withField } from '../api/fields';
import type { BlobView, Face, Job, Layer } from '../api/generated/types';
import { freeId, type PieceSession } from '../job/pieces';

export type PictureLayer = Extract<Layer, { kind: 'picture' }>;

export const isPicture = (layer: Layer): layer is PictureLayer => layer.kind === 'picture';

/** What a face starts with when it is switched on. */
export const FIRST: Face = {
  bleed: 1.5,
  layers: [{ id: 'l1', name: null, kind: 'panel-names' }],
};

const layersOf = (job: Job, session: PieceSession): Layer[] =>
  job.pieces.find(({ id }) => id === session.own.id)?.face?.layers ?? [];

const withLayers = (job: Job, session: PieceSession, layers: Layer[]): Job =>
  withField(job, session.at('face.layers'), layers);

/** The job with a layer more, above the others. */
export function withLayer(job: Job, session: PieceSession, layer: Omit<Layer, 'id'>): Job {
  const face = job.pieces.find(({ id }) => id === session.own.id)?.face;
  const layers = face?.layers ?? [];
  const made = { ...layer, id: freeId('l', layers) } as Layer;
  const next: Face = face ? { ...face, layers: [...layers, made] } : { ...FIRST, layers: [made] };
  return withField(job, session.at('face'), next);
}

export const withoutLayer = (job: Job, session: PieceSession, id: string): Job =>
  withLayers(
    job,
    session,
    layersOf(job, session).filter((layer) => layer.id !== id),
  );

/** The job with a layer printed so many places later, or earlier. */
export function withLayerMoved(job: Job, session: PieceSession, id: string, by: number): Job {
  const layers = [...layersOf(job, session)];
  const at = layers.findIndex((layer) => layer.id === id);
  const [moved] = layers.splice(at, 1);
  if (moved) layers.splice(Math.max(0, at + by), 0, moved);
  return withLayers(job, session, layers);
}

/** A picture that was brought in, whole on its panel. */
export const pictureOn = (
  blob: BlobView,
  name: string,
  panel: string,
): Omit<PictureLayer, 'id'> => ({
  name: null,
  kind: 'picture',
  blob: blob.id,
  pixels: blob.pixels,
  origin: { name: name.slice(0, 200), source: '', licence: '', note: '' },
  panel,
  x: 0,
  y: 0,
  size: { by: 'panel' },
});
