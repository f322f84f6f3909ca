/** Good pieces, and bad ones by cause. */
import { useState } from 'react';

import type { Bad, RunStands } from '../api/generated/types';
import { CountField } from '../card/CountField';
import type { Running } from './useRun';

interface Counts {
  good: number;
  bad: Partial<Record<Bad, number>>;
}

export function CountRows({ stands, run }: { stands: RunStands; run: Running }) {
  const [tried, setTried] = useState<Counts | null>(null);
  const kept: Counts = {
    good: stands.good,
    bad: Object.fromEntries(stands.bad.map(({ cause, count }) => [cause, count])),
  };
  const counts = tried ?? kept;
  const keep = async () => {
    const isKept = await run.change({ do: 'count', ...counts });
    if (isKept) setTried(null);
    return isKept;
  };
  return (
    <div className="run-counts">
      <CountField
        label="Good pieces"
        value={counts.good}
        errors={[]}
        onTry={(good) => setTried({ ...counts, good })}
        onKeep={keep}
        onApply={() => undefined}
      />
      {stands.bad.map(({ cause, name }) => (
        <CountField
          key={cause}
          label={name}
          value={counts.bad[cause] ?? 0}
          errors={[]}
          onTry={(count) => setTried({ ...counts, bad: { ...counts.bad, [cause]: count } })}
          onKeep={keep}
          onApply={() => undefined}
        />
      ))}
    </div>
  );
}
