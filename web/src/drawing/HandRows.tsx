/** Lines mended by hand: tools for the line, the node and the segment that are taken, lines added, and what was done. */
import { Button } from 'react-bootstrap';

import type { DrawingView, LineDrawing, Scale, UnitInfo } from '../api/generated/types';
import { Rows } from '../card/SpecCard';
import { AddLine } from './AddLine';
import { LineTools } from './LineTools';
import { Tool } from './Tool';
import type { Mending, Together } from './useMending';

interface Props {
  own: LineDrawing;
  view: DrawingView;
  unit: UnitInfo;
  mending: Mending;
  isOn: boolean;
  onSwitch: (is: boolean) => void;
  onScale: (scale: Scale) => void;
}

/** What the other line is pressed for. */
const WAITING: Record<Together, string> = {
  join: 'Press on the line whose end is joined to it.',
  trim: 'Press on the line to which it is trimmed: what you pressed goes.',
  unite: 'Press on the outline that is united with it.',
  subtract: 'Press on the outline that is taken away from this one, which is kept.',
  intersect: 'Press on the other outline: what both enclose is kept.',
};

export function HandRows({ own, view, unit, mending, isOn, onSwitch, onScale }: Props) {
  const steps = own.mends ?? [];
  return (
    <Rows
      title="By hand"
      aside={
        <Button
          size="sm"
          variant={isOn ? 'primary' : 'outline-primary'}
          aria-pressed={isOn}
          onClick={() => onSwitch(!isOn)}
        >
          {isOn ? 'done' : 'mend lines'}
        </Button>
      }
    >
      {isOn && (
        <>
          <p className="trace-hint" role="status">
            {mending.waits
              ? WAITING[mending.waits]
              : mending.picked
                ? 'Drag its nodes, or press on a stretch of it.'
                : 'Press on a line to work at it.'}
          </p>
          <div className="trace-hands" role="group" aria-label="Which line">
            <Tool label="next line" onUse={() => mending.next(1)} />
            <Tool label="line before" onUse={() => mending.next(-1)} />
          </div>
          {mending.trouble && (
            <p className="lay-note lay-trouble" role="alert">
              {mending.trouble}
            </p>
          )}
          {mending.picked && <LineTools {...{ view, unit, mending, onScale }} />}
          <AddLine {...{ view, unit, mending }} />
        </>
      )}
      {view.mended.map(({ words, is_done: isDone }, step) => (
        <div className={`row-result${isDone ? '' : ' is-refused'}`} key={step}>
          <span>{isDone ? words : `not done: ${words}`}</span>
          {step === steps.length - 1 && (
            <Button
              size="sm"
              variant="link"
              aria-label="Take the last step back"
              onClick={mending.back}
            >
              take back
            </Button>
          )}
        </div>
      ))}
    </Rows>
  );
}
