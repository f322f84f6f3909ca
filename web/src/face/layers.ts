/** A face's layers, as they are added, ordered and taken away. */
import { add, set } from '../api/fields';
import type { BlobView, Face, FieldChange, Layer } from '../api/generated/types';
import type { PieceSession } from '../job/pieces';

export type PictureLayer = Extract<Layer, { kind: 'picture' }>;
export type TextLayer = Extract<Layer, { kind: 'text' }>;
export type ShapeLayer = Extract<Layer, { kind: 'shape' }>;
export type PatternLayer = Extract<Layer, { kind: 'pattern' }>;

/** A layer with a place of its own. */
export type LyingLayer = PictureLayer | TextLayer | ShapeLayer | PatternLayer;

export const lies = (layer: Layer): layer is LyingLayer => 'panels' in layer;

/** Which side of the piece is printed. */
export type Side = NonNullable<Layer['side']>;

/** True where a layer is on that side. */
export const isOn = (side: Side) => (layer: Layer) => (layer.side ?? 'front') === side;

/** A layer and those that it is held together with, itself first. */
export const membersOf = (layers: Layer[], layer: Layer): string[] => [
  layer.id,
  ...(layer.group == null ? [] : layers)
    .filter(({ id, group }) => id !== layer.id && group === layer.group)
    .map(({ id }) => id),
];

/** A layer without the id that the server gives it. */
export type NewLayer = Omit<Layer, 'id'>;

/** What begins a face where there is none, and none on its way. */
export const faceBegun = (session: PieceSession, first: Face): FieldChange[] =>
  session.newest(session.at('face')) ? [] : [set(session.at('face'), { ...first, layers: [] })];

/** What puts a layer above the others, on a face that there may not be yet. */
export function layerAdded(session: PieceSession, layer: NewLayer, first: Face): FieldChange[] {
  const begun = faceBegun(session, first);
  return [...begun, add(session.at('face.layers'), { ...layer, id: undefined })];
}

/** A picture that was brought in, whole on its panel. */
export const pictureOn = (
  blob: BlobView,
  name: string,
  panel: string,
  side: Side,
): Omit<PictureLayer, 'id'> => ({
  side,
  name: null,
  kind: 'picture',
  blob: blob.id,
  pixels: blob.pixels,
  drawn: blob.drawn,
  origin: { name: name.slice(0, 200), source: '', licence: '', note: '' },
  panels: [panel],
  x: 0,
  y: 0,
  up: 'as-read',
  turn: 0,
  size: { by: 'panel' },
  crop: [0, 0, 0, 0],
  mirrored: false,
  beyond: { by: 'nothing' },
});
