/** What a ruler says of the printed scale. */
import type { PrintedScale, UnitInfo } from '../api/generated/types';
import { PlainLength } from '../card/PlainLength';
import type { Running } from './useRun';

export function ScaleRow({
  scale,
  unit,
  run,
}: {
  scale: PrintedScale;
  unit: UnitInfo;
  run: Running;
}) {
  return (
    <div className={`run-scale${scale.can_be_cut ? '' : ' is-wrong'}`}>
      <PlainLength
        label={`The scale of ${scale.asked_text} measures`}
        value={scale.measured ?? scale.asked}
        unit={unit}
        onTry={() => undefined}
        onKeep={(mm) => void run.change({ do: 'measure', mm })}
      />
      {scale.words && <p role="status">{scale.words}</p>}
    </div>
  );
}
