/** The work as a ruler of time: each operation as long as it takes, and the moment that is looked at. */
import { Button } from 'react-bootstrap';

import type { ToolingView } from '../api/generated/types';
import { Switch } from '../card/Switch';
import { type Playing, SPEEDS } from './usePlaying';

const clock = (seconds: number) => {
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
};

export function Timeline({ view, playing }: { view: ToolingView; playing: Playing }) {
  const { now, seconds, isOn, speed, go, play, setSpeed } = playing;
  const share = (at: number) => `${(100 * at) / Math.max(seconds, 1e-6)}%`;
  return (
    <div className="timeline">
      <Button
        variant="outline-primary"
        size="sm"
        aria-label={isOn ? 'Stop' : 'Play'}
        onClick={play}
      >
        {isOn ? '❚❚' : '▶'}
      </Button>
      <div className="timeline-rule">
        <div className="timeline-bars" aria-hidden="true">
          {view.operations
            .filter(({ takes }) => takes > 0)
            .map((own) => (
              <span
                key={own.kind}
                className={`bar-${own.kind}`}
                style={{ left: share(own.begins), width: share(own.takes) }}
              >
                {own.name}
              </span>
            ))}
        </div>
        <input
          type="range"
          min={0}
          max={seconds}
          step={seconds / 1000 || 1}
          value={now}
          aria-label="Moment of the work"
          aria-valuetext={`${clock(now)} of ${clock(seconds)}`}
          onChange={(event) => go(Number(event.target.value))}
        />
        <div className="timeline-ends figure">
          <span>{clock(now)}</span>
          <span>{clock(seconds)}</span>
        </div>
      </div>
      <Switch
        label="Speed of the play"
        value={String(speed)}
        choices={SPEEDS.map((own) => ({ value: String(own), label: `${own}×` }))}
        onChoose={(own) => setSpeed(Number(own))}
      />
    </div>
  );
}
