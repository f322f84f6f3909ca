/** A tool for lines: a small button, pressed in while it waits. */
import { Button } from 'react-bootstrap';

export function Tool({ label, onUse, isOn }: { label: string; onUse: () => void; isOn?: boolean }) {
  return (
    <Button
      size="sm"
      variant={isOn ? 'primary' : 'outline-primary'}
      {...(isOn === undefined ? {} : { 'aria-pressed': isOn })}
      onClick={onUse}
    >
      {label}
    </Button>
  );
}
