/** The sheet's work, sent to the cutter: with progress, a pause, and a stop that stops. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import { follow } from '../api/events';
import type {
  MachineWish,
  RunStands,
  SendAsk,
  SendEnd,
  SendProgress,
  RunStepView,
} from '../api/generated/types';

interface Props {
  stands: RunStands;
  step: RunStepView;
  isOpen: boolean;
}

export function SendRow({ stands, step, isOpen }: Props) {
  const [progress, setProgress] = useState<SendProgress | null>(null);
  const [end, setEnd] = useState<SendEnd | null>(null);
  const [isHeld, setHeld] = useState(false);
  const { sheet } = step;
  if (stands.address === null) {
    return (
      <p className="run-note">
        {stands.files.length > 0
          ? 'Carry the file to the machine: it is in the card beside this.'
          : 'Cut it with the files of the job.'}
      </p>
    );
  }
  const send = async () => {
    setEnd(null);
    setHeld(false);
    setProgress({ words: 'Calling the cutter', sent: 0, of: 1 });
    const ask: SendAsk = { sheet, loading: step.loading };
    try {
      await follow(`/prints/${stands.id}/send`, ask, new AbortController().signal, (name, data) => {
        if (name === 'progress') setProgress(data as SendProgress);
        if (name === 'done') setEnd(data as SendEnd);
      });
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setEnd({ is_done: false, words: error.message });
    }
    setProgress(null);
  };
  const wish = (own: MachineWish) => {
    setHeld(own === 'hold');
    api.wish(stands.id, own).catch((error: unknown) => {
      if (!(error instanceof Failure)) throw error;
    });
  };
  return (
    <div className="run-send">
      {progress ? (
        <>
          <progress value={progress.sent} max={Math.max(1, progress.of)} />
          <span role="status">{isHeld ? 'Held' : progress.words}</span>
          <Button variant="outline-primary" onClick={() => wish(isHeld ? 'resume' : 'hold')}>
            {isHeld ? 'Go on' : 'Pause'}
          </Button>
          <Button variant="danger" onClick={() => wish('stop')}>
            Stop
          </Button>
        </>
      ) : (
        <Button variant="outline-primary" disabled={!isOpen} onClick={() => void send()}>
          Send sheet {sheet} to {stands.cutter}
        </Button>
      )}
      {end && (
        <p className={end.is_done ? 'run-note' : 'run-wrong'} role="status">
          {end.words}
        </p>
      )}
    </div>
  );
}
