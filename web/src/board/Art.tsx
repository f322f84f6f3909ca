/** What is printed on a blank, layer upon layer, in the blank's own coordinates. */
import { useId } from 'react';

import type { ArtView, InkedView, RunningView } from '../api/generated/types';

/** Where the bytes of a blob are. */
export const blobAddress = (id: string) => `/api/blobs/${id}`;

export function Art({ art }: { art: ArtView }) {
  return <Inks inks={art.layers} />;
}

export function Inks({ inks }: { inks: InkedView[] }) {
  return inks.map((inked, at) => <Inked key={at} inked={inked} />);
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
      {inked.kind === 'area' && inked.running && (
        <Running id={`${id}r`} from={inked.colour} running={inked.running} />
      )}
      {inked.kind === 'area' ? (
        <path d={inked.path} fill={inked.running ? `url(#${id}r)` : inked.colour} />
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

function Running({ id, from, running }: { id: string; from: string; running: RunningView }) {
  const [[x1, y1], [x2, y2]] = running.ends;
  return (
    <linearGradient id={id} gradientUnits="userSpaceOnUse" {...{ x1, y1, x2, y2 }}>
      <stop offset={0} stopColor={from} />
      <stop offset={1} stopColor={running.to} />
    </linearGradient>
  );
}
