/** The flat colour of a layer. */
import { useId } from 'react';

/** Inks of the demo's world; any other can be mixed. */
const INKS = ['#e7dcc0', '#f0d9cf', '#dfe8d6', '#d5e3e6', '#f3e3b3', '#c9b8d1'];

interface Props {
  colour: string;
  onTry: (colour: string) => void;
  onKeep: (colour: string) => void;
}

export function ColourField({ colour, onTry, onKeep }: Props) {
  const id = useId();
  return (
    <div className="row-field">
      <label htmlFor={id}>Colour</label>
      <span className="inks">
        {INKS.map((ink) => (
          <button
            key={ink}
            type="button"
            className="ink"
            style={{ background: ink }}
            aria-label={`Colour ${ink}`}
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
