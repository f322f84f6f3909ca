/** What a layer is, at a glance. */
import type { Layer } from '../api/generated/types';
import { blobAddress } from '../board/Art';

export function LayerSwatch({ layer }: { layer: Layer }) {
  switch (layer.kind) {
    case 'colour':
      return <span className="swatch" style={{ background: layer.colour }} aria-hidden="true" />;
    case 'panel-names':
      return (
        <span className="swatch" aria-hidden="true">
          Aa
        </span>
      );
    case 'text':
      return (
        <span className="swatch" style={{ color: layer.colour }} aria-hidden="true">
          T
        </span>
      );
    case 'shape':
      return (
        <span
          className="swatch"
          style={{ background: layer.fill ?? 'none', borderColor: layer.line ?? undefined }}
          aria-hidden="true"
        />
      );
    case 'pattern':
      return (
        <span className="swatch" style={{ color: layer.colour }} aria-hidden="true">
          ⁘
        </span>
      );
    case 'picture':
      return <img className="swatch" src={blobAddress(layer.blob)} alt="" />;
  }
}
