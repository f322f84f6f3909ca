/** A button that opens the choice of a file. */
import { useRef } from 'react';
import { Button } from 'react-bootstrap';

interface Props {
  label: string;
  /** What the field is called for whoever does not see the button. */
  name: string;
  /** Endings that are offered, such as `.svg,.dxf`. */
  accept: string;
  onChoose: (file: File) => void;
}

export function FileButton({ label, name, accept, onChoose }: Props) {
  const field = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={field}
        type="file"
        accept={accept}
        className="visually-hidden"
        aria-label={name}
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) onChoose(chosen);
          event.target.value = '';
        }}
      />
      <Button size="sm" variant="outline-primary" onClick={() => field.current?.click()}>
        {label}
      </Button>
    </>
  );
}
