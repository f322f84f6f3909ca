import { Modal } from 'react-bootstrap';

const KEYS: [string, string][] = [
  ['Alt 1 … Alt 5', 'Form, Face, Sheet, Tooling, Run'],
  ['Ctrl Z, Ctrl Shift Z', 'Undo, redo'],
  ['↑ ↓ in a figure', 'Step; with Shift ten times, with Alt a tenth'],
  ['Enter, Esc in a figure', 'Keep it, drop it'],
  ['+ − 0 on the drawing', 'Larger, smaller, fit'],
  ['Arrows on the drawing', 'Move it'],
  ['Wheel, drag, double click', 'Zoom to the pointer, move, fit'],
  ['Arrows, + − 0 on the folded piece', 'Turn it, larger, smaller, fit'],
  ['Arrows on an add-on', 'Move it 1 mm; with Shift 10, with Alt 0.1'],
  ['] [ on the sheet', 'Choose the next copy, the one before'],
  ['Ctrl A, Shift drag, Esc on the sheet', 'Choose all, those in a frame, none'],
  ['Arrows on chosen copies', 'Move 1 mm; with Shift 10, with Alt 0.1'],
  ['R, Shift R, L, Delete', 'Turn chosen copies a quarter, back, lock them, take them off'],
  ['Alt while dragging copies', 'Not drawn to lines'],
  ['?', 'This list'],
];

export function Shortcuts({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Modal show={isOpen} onHide={onClose} centered>
      <Modal.Header closeButton>
        <Modal.Title>Shortcuts</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <dl className="shortcuts">
          {KEYS.map(([keys, what]) => (
            <div key={keys}>
              <dt>{keys}</dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
      </Modal.Body>
    </Modal>
  );
}
