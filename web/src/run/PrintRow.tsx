/** The print file, sent to the printer or taken to a print dialog. */
import { useState } from 'react';
import { Button } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import type { RunStands } from '../api/generated/types';

export function PrintRow({ stands, isOpen }: { stands: RunStands; isOpen: boolean }) {
  const [isBusy, setBusy] = useState(false);
  const [said, setSaid] = useState<{ words: string; isWrong: boolean } | null>(null);
  const print = async () => {
    setBusy(true);
    setSaid(null);
    try {
      setSaid({ words: `${await api.printThere(stands.id)}.`, isWrong: false });
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setSaid({ words: error.message, isWrong: true });
    }
    setBusy(false);
  };
  return (
    <div className="run-send">
      {stands.printer_address !== null && (
        <Button variant="outline-primary" disabled={isBusy || !isOpen} onClick={() => void print()}>
          {isBusy ? 'Printing …' : `Send to ${stands.printer}`}
        </Button>
      )}
      <a className="btn btn-outline-primary" href={`/api/prints/${stands.id}/print.pdf`} download>
        The print file
      </a>
      {said && (
        <p className={said.isWrong ? 'run-wrong' : 'run-note'} role="status">
          {said.words}
        </p>
      )}
    </div>
  );
}
