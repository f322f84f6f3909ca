/** What is printed on a blank, layer upon layer, in the blank's own coordinates. */
import { useId } from 'react';

import type { ArtView, InkedView } from '../api/generated/types';

/** Where the bytes of a blob are. */
export const blobAddress = (id: string) => `/api/blobs/${id}`;

export function Art({ art }: { art: ArtView }) {
  return art.layers.map((inked, at) => <Inked key={at} inked={inked} />);
}

function Inked({ inked }: { inked: InkedView }) {
  const clip = useId();
  switch (inked.kind) {
    case 'area':
    case 'words':
      return <path d={inked.path} fill={inked.colour} />;
    case 'picture': {
      const [x, y, width, height] = inked.place;
      return (
        <>
          <clipPath id={clip}>
            <path d={inked.clip} />
          </clipPath>
          <image
            href={blobAddress(inked.blob)}
            {...{ x, y, width, height }}
            preserveAspectRatio="none"
            clipPath={`url(#${clip})`}
          />
        </>
      );
    }
  }
}
