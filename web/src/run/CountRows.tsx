/** Good pieces, and bad ones by cause, of each piece of the job; and what is still missing. */
import { useState } from 'react';

import type { Bad, CountedPiece } from '../api/generated/types';
import { CountField } from '../card/CountField';
import type { Running } from './useRun';

export function CountRows({ pieces, run }: { pieces: CountedPiece[]; run: Running }) {
  return (
    <>
      {pieces.map((piece) => (
        <CountOne key={piece.id} piece={piece} isAlone={pieces.length === 1} run={run} />
      ))}
    </>
  );
}

interface Counts {
  good: number;
  bad: Partial<Record<Bad, number>>;
}

interface Props {
  piece: CountedPiece;
  isAlone: boolean;
  run: Running;
}

function CountOne({ piece, isAlone, run }: Props) {
  const [tried, setTried] = useState<Counts | null>(null);
  const kept: Counts = {
    good: piece.good,
    bad: Object.fromEntries(piece.bad.map(({ cause, count }) => [cause, count])),
  };
  const counts = tried ?? kept;
  const keep = async () => {
    const isKept = await run.change({ do: 'count', piece: piece.id, counted: counts });
    if (isKept) setTried(null);
    return isKept;
  };
  return (
    <section className="run-counts" aria-label={piece.name}>
      {!isAlone && <h3>{piece.name}</h3>}
      <CountField
        label={isAlone ? 'Good pieces' : `Good of ${piece.name}`}
        value={counts.good}
        errors={[]}
        onTry={(good) => setTried({ ...counts, good })}
        onKeep={keep}
        onApply={() => undefined}
      />
      {piece.bad.map(({ cause, name }) => (
        <CountField
          key={cause}
          label={isAlone ? name : `${name}, ${piece.name}`}
          value={counts.bad[cause] ?? 0}
          errors={[]}
          onTry={(count) => setTried({ ...counts, bad: { ...counts.bad, [cause]: count } })}
          onKeep={keep}
          onApply={() => undefined}
        />
      ))}
      <p className={piece.is_enough ? 'run-note' : 'run-missing'} role="status">
        {piece.words}
      </p>
    </section>
  );
}
