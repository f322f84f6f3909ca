/** What the cutter made of a sheet, over its print, with hairs for how far each place is off. */
import { useMemo } from 'react';

import type { RehearsalView } from '../api/generated/types';
import type { Preview } from '../api/views';

interface Props {
  view: RehearsalView;
  preview: Preview;
  /** By how much errors are enlarged. */
  times: number;
}

export function CutOverPrint({ view, preview, times }: Props) {
  const [width, height] = preview.sheet.page;
  const hairs = useMemo(() => hairsOf(view, times), [view, times]);
  return (
    <svg
      className="rehearsal-board"
      viewBox={`-6 -6 ${width + 12} ${height + 12}`}
      role="img"
      aria-label={`${view.title}. ${view.words}`}
    >
      <rect className="paper-edge is-under" width={width} height={height} />
      <g transform={`matrix(${view.back.join(' ')})`} className="print-under">
        {view.picture !== null && (
          <image
            href={`/api/rehearsal/${view.picture}/sheet.png`}
            width={view.paper[0]}
            height={view.paper[1]}
            preserveAspectRatio="none"
          />
        )}
      </g>
      <path className="cut-made" d={view.cut} />
      {(['fits', 'attention', 'broken'] as const).map((state) => (
        <path key={state} className={`hair is-${state}`} d={hairs[state]} />
      ))}
    </svg>
  );
}

/** The hairs of each state as one path. */
function hairsOf(view: RehearsalView, times: number) {
  const paths = { fits: '', attention: '', broken: '' };
  for (const { at, off, state } of view.hairs)
    paths[state] += `M${at[0]} ${at[1]}l${off[0] * times} ${off[1] * times}`;
  return paths;
}
