/** The job changed in another window: take that, or keep this as a copy. */
import { Button, Modal } from 'react-bootstrap';
import { useNavigate } from 'react-router';

import type { JobSession } from './useJobSession';

export function ConflictDialog({ session }: { session: JobSession }) {
  const navigate = useNavigate();
  const copy = async () => {
    const id = await session.keepAsCopy();
    if (id !== null) {
      session.reload();
      void navigate(`/jobs/${id}/form`);
    }
  };
  return (
    <Modal show={session.isConflict} onHide={session.reload} backdrop="static" centered>
      <Modal.Header>
        <Modal.Title>Changed in another window</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        Another window has changed “{session.job.name}” since this one opened it. Nothing is
        overwritten. You can take the other window’s state, or keep what you see here as a new job.
      </Modal.Body>
      <Modal.Footer>
        <Button variant="outline-primary" onClick={session.reload}>
          Take the other window’s
        </Button>
        <Button onClick={() => void copy()}>Keep mine as a copy</Button>
      </Modal.Footer>
    </Modal>
  );
}
