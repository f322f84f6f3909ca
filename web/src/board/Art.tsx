/** What is printed on a blank, layer upon layer, in the blank's own coordinates. */
import { useId } from 'react';

import type { ArtView, InkedView } from '../api/generated/types';

/** Where the bytes of a blob are. */
export const blobAddress = (id: string) => `/api/blobs/${id}`;

export function Art({ art }: { art: ArtView }) {
  return art.layers.map((inked, at) => <Inked key={at} inked={inked} />);
}

function Inked({ inked }: { inked: InkedView }) {
  const id = useId();
  const clip = inked.clip === null ? {} : { clipPath: `url(#${id})` };
  return (
    <g {...clip} {...(inked.opacity < 1 ? { opacity: inked.opacity } : {})}>
      {inked.clip !== null && (
        <clipPath id={id}>
          <path d={inked.clip} />
        </clipPath>
      )}
      {inked.kind === 'area' ? (
        <path d={inked.path} fill={inked.colour} />
      ) : (
        <image
          href={blobAddress(inked.blob)}
          width={1}
          height={1}
          transform={`matrix(${inked.place.join(' ')})`}
          preserveAspectRatio="none"
        />
      )}
    </g>
  );
}
