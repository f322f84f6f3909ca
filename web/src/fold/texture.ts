/** What is printed on a blank, as a texture for its plates. */
import { CanvasTexture, SRGBColorSpace } from 'three';

import type { ArtView, RunningView } from '../api/generated/types';
import type { PartView } from '../api/views';
import { blobAddress } from '../board/Art';

/** Pixels for a millimetre, and the most on a side. */
const FINE = 8;
const LARGEST = 2048;

/** A texture that is drawn at once, and again when its pictures are there; `onDrawn` is told each time. */
export function artTexture(
  part: PartView,
  art: ArtView,
  card: string,
  onDrawn: () => void,
): CanvasTexture {
  const [width, height] = part.size;
  const scale = Math.min(FINE, LARGEST / Math.max(width, height, 1));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(width * scale));
  canvas.height = Math.max(1, Math.round(height * scale));
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = SRGBColorSpace;
  texture.anisotropy = 4;
  const draw = (pictures: Map<string, HTMLImageElement>) => {
    const pen = canvas.getContext('2d');
    if (!pen) return;
    pen.setTransform(1, 0, 0, 1, 0, 0);
    pen.fillStyle = card;
    pen.fillRect(0, 0, canvas.width, canvas.height);
    pen.setTransform(scale, 0, 0, scale, 0, 0);
    // Varnish is clear.
    const seen = art.layers.filter(({ separation }) => ['white', 'colour'].includes(separation));
    for (const inked of seen) {
      pen.save();
      pen.globalAlpha = inked.opacity;
      if (inked.clip !== null) pen.clip(new Path2D(inked.clip));
      if (inked.kind === 'area') {
        pen.fillStyle = inked.running ? running(pen, inked.colour, inked.running) : inked.colour;
        pen.fill(new Path2D(inked.path));
      } else {
        const picture = pictures.get(inked.blob);
        pen.transform(...inked.place);
        if (picture) pen.drawImage(picture, 0, 0, 1, 1);
      }
      pen.restore();
    }
    texture.needsUpdate = true;
    onDrawn();
  };
  draw(new Map());
  void load(art).then(draw);
  return texture;
}

function running(pen: CanvasRenderingContext2D, from: string, { to, ends }: RunningView) {
  const gradient = pen.createLinearGradient(...ends[0], ...ends[1]);
  gradient.addColorStop(0, from);
  gradient.addColorStop(1, to);
  return gradient;
}

/** The pictures that can be had. */
async function load(art: ArtView): Promise<Map<string, HTMLImageElement>> {
  const found = new Map<string, HTMLImageElement>();
  const blobs = art.layers.flatMap((inked) => (inked.kind === 'picture' ? [inked.blob] : []));
  for (const blob of new Set(blobs)) {
    const image = new Image();
    image.src = blobAddress(blob);
    try {
      await image.decode();
      found.set(blob, image);
    } catch {
      // A picture that is missing is told by its check.
    }
  }
  return found;
}
