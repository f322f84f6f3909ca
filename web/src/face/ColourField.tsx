/** The flat colour of a layer. */
import { useId } from 'react';
import { Button } from 'react-bootstrap';

import { useMeta } from '../api/queries';

interface Props {
  /** What it colours; “Colour” where nothing else is said. */
  label?: string;
  colour: string;
  onTry: (colour: string) => void;
  onKeep: (colour: string) => void;
}

export function ColourField({ label = 'Colour', colour, onTry, onKeep }: Props) {
  const id = useId();
  const inks = useMeta().data?.starts.inks ?? [];
  return (
    <div className="row-field">
      <label htmlFor={id}>{label}</label>
      <span className="inks">
        {inks.map((ink) => (
          <Button
            variant="bare"
            key={ink}
            className="ink"
            style={{ background: ink }}
            aria-label={`${label} ${ink}`}
            aria-pressed={colour === ink}
            onClick={() => onKeep(ink)}
          />
        ))}
        <input
          id={id}
          type="color"
          className="ink ink-mixed"
          value={colour}
          onChange={(event) => onTry(event.target.value)}
          onBlur={(event) => {
            onKeep(event.target.value);
          }}
        />
      </span>
    </div>
  );
}
