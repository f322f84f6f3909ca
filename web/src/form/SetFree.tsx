/** Setting a structure free from its figures: its lines become a drawing's, to be mended by hand. */
import { useState } from 'react';
import { Button, Modal } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import { set } from '../api/fields';
import { Rows } from '../card/SpecCard';
import type { PieceSession } from '../job/pieces';

export function SetFree({ session, name }: { session: PieceSession; name: string }) {
  const [isAsking, setAsking] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const free = async () => {
    setTrouble(null);
    try {
      const { form: own, stock, face: printed } = session.own;
      const { drawing, face } = await api.setFree({ form: own, stock, face: printed, name });
      const { backing, through } = own;
      const form = { drawing, ...(backing ? { backing } : {}), ...(through ? { through } : {}) };
      if (await session.keep(set(session.at('form'), form), set(session.at('face'), face)))
        setAsking(false);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
    }
  };
  return (
    <Rows title="Lines of its own" page="form">
      <div className="row-field">
        <span>Mend single lines</span>
        <Button size="sm" variant="outline-primary" onClick={() => setAsking(true)}>
          Set free
        </Button>
      </div>
      <Modal show={isAsking} onHide={() => setAsking(false)}>
        <Modal.Header closeButton>
          <Modal.Title>Set it free from its figures?</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <p>
            Its lines become a drawing’s: each can be moved, bent, cut or taken out, and it folds as
            before. Its figures are gone then: a structure no longer follows the caliper of its
            card, and an outline no longer its picture, which stays where it is printed. Undo brings
            them back.
          </p>
          {trouble && (
            <p className="lay-note lay-trouble" role="alert">
              {trouble}
            </p>
          )}
        </Modal.Body>
        <Modal.Footer>
          <Button variant="outline-primary" onClick={() => setAsking(false)}>
            Keep its figures
          </Button>
          <Button variant="primary" onClick={() => void free()}>
            Set free
          </Button>
        </Modal.Footer>
      </Modal>
    </Rows>
  );
}
