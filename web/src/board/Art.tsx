/** What is printed on a blank, layer upon layer, in the blank's own coordinates. */
import { useContext, useId } from 'react';

import type { ArtView, InkedView, RunningView } from '../api/generated/types';

import { SeenInks } from './inks';

/** Where the bytes of a blob are. */
export const blobAddress = (id: string) => `/api/blobs/${id}`;

export function Art({ art }: { art: ArtView }) {
  return <Inks inks={art.layers} />;
}

/** Inks, of all those of a blank. */
export function Inks({ inks, all = inks }: { inks: InkedView[]; all?: InkedView[] }) {
  const { only, shine } = useContext(SeenInks);
  // On card that shines colour alone lets it through.
  const isThin = shine !== 'opaque' && !all.some(({ separation }) => separation === 'white');
  return inks
    .filter(({ separation }) => only === null || only === separation)
    .map((inked, at) => (
      <Inked
        key={at}
        inked={inked}
        isPlate={only !== null && only !== 'colour'}
        isThin={isThin && inked.separation === 'colour'}
      />
    ));
}

interface InkedProps {
  inked: InkedView;
  /** True where one ink is looked at alone. */
  isPlate: boolean;
  isThin: boolean;
}

/** How much of the card is seen through colour with no white beneath it. */
const THIN = 0.62;

function Inked({ inked, isPlate, isThin }: InkedProps) {
  const id = useId();
  const opacity = inked.opacity * (isThin ? THIN : 1);
  const ink = isPlate ? 'is-plate' : `ink-${inked.separation}`;
  const clip = inked.clip === null ? {} : { clipPath: `url(#${id})` };
  return (
    <g className={ink} {...clip} {...(opacity < 1 ? { opacity } : {})}>
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
