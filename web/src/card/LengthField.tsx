/**
 * A length that is typed in any unit, stepped with the arrow keys, or scrubbed on its label.
 *
 * What is typed is read by the server; a bad entry stays as it is and changes nothing.
 */
import { useEffect, useId, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import type { InputError, Measured, UnitInfo } from '../api/generated/types';
import { Problems } from './Problems';
import { useLengthText } from './useLengthText';

export interface LengthFieldProps {
  label: string;
  /** What it measures, in a sentence. */
  note?: string;
  /** In mm. */
  value: number;
  /** The value as the server writes it, where that is known. */
  text?: string;
  unit: UnitInfo;
  /** What is typed: a length unless it is an angle or a count. */
  measured?: Measured;
  /** What stepping stops at; 0 where nothing else is said. */
  least?: number;
  /** True while it follows the trade's default. */
  isStandard?: boolean;
  errors: InputError[];
  onTry: (mm: number) => void;
  /** Saves; false when the figure cannot be used. */
  onKeep: () => Promise<boolean>;
  onDrop: () => void;
  /** Back to the trade's default. */
  onStandard?: () => void;
  onFocus?: (isFocused: boolean) => void;
  onApply: (error: InputError) => void;
}

/** What stands behind a figure that is no length. */
const SUFFIX: Partial<Record<Measured, string>> = {
  angle: '°',
  count: '',
  grammage: 'g/m²',
  amount: '',
};

/** What a step is, for what is not measured in the unit's own steps. */
const STRIDES: Partial<Record<Measured, number>> = {
  angle: 1,
  count: 1,
  grammage: 10,
  caliper: 0.01,
  amount: 0.1,
};

const PAUSE = 500;
const SCRUB = 4;

export function LengthField(props: LengthFieldProps) {
  const { label, note, value, unit, isStandard, errors, onTry, onKeep, onDrop } = props;
  const measured = props.measured ?? 'length';
  const written = useLengthText(props.text === undefined ? value : null, unit, measured);
  const text = props.text ?? written;
  const stride = STRIDES[measured] ?? unit.step;
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [complaint, setComplaint] = useState<string | null>(null);
  const asking = useRef<AbortController | null>(null);
  const pause = useRef<number | undefined>(undefined);
  const isFresh = useRef(false);
  const scrub = useRef<{ x: number; from: number } | null>(null);
  // The value that steps start from: the newest one, also before the preview has come back.
  const now = useRef(value);
  useEffect(() => {
    now.current = value;
  }, [value]);
  useEffect(() => () => window.clearTimeout(pause.current), []);

  const keepSoon = () => {
    window.clearTimeout(pause.current);
    pause.current = window.setTimeout(() => void onKeep(), PAUSE);
  };

  const read = async (entry: string): Promise<boolean> => {
    asking.current?.abort();
    const asked = new AbortController();
    asking.current = asked;
    try {
      const { mm } = await api.readLength({ text: entry, unit: unit.unit, measured }, asked.signal);
      if (asked.signal.aborted) return false;
      setComplaint(null);
      onTry(mm);
      return true;
    } catch (error) {
      if (asked.signal.aborted) return false;
      setComplaint(error instanceof Failure ? error.message : String(error));
      return false;
    }
  };

  const finish = async () => {
    if (typed === null) return;
    window.clearTimeout(pause.current);
    // What cannot be used stays in the field as it was typed; so does what is typed meanwhile.
    if ((await read(typed)) && (await onKeep())) {
      setTyped((now) => (now === typed ? null : now));
    }
  };

  const give = () => {
    asking.current?.abort();
    window.clearTimeout(pause.current);
    setTyped(null);
    setComplaint(null);
    onDrop();
  };

  const apply = (error: InputError) => {
    asking.current?.abort();
    window.clearTimeout(pause.current);
    setTyped(null);
    props.onApply(error);
  };

  const step = (by: number) => {
    setTyped(null);
    setComplaint(null);
    now.current = Math.max(props.least ?? 0, now.current + by);
    onTry(now.current);
    keepSoon();
  };

  const key = (event: React.KeyboardEvent) => {
    const fine = measured === 'count' ? 1 : 0.1;
    const size = stride * (event.shiftKey ? 10 : event.altKey ? fine : 1);
    if (event.key === 'ArrowUp') step(size);
    else if (event.key === 'ArrowDown') step(-size);
    else if (event.key === 'Enter') void finish();
    else if (event.key === 'Escape') give();
    else return;
    event.preventDefault();
  };

  const grab = (event: React.PointerEvent) => {
    scrub.current = { x: event.clientX, from: now.current };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const slide = (event: React.PointerEvent) => {
    if (!scrub.current) return;
    const steps = Math.round((event.clientX - scrub.current.x) / SCRUB);
    const next = Math.max(props.least ?? 0, scrub.current.from + steps * stride);
    if (next !== now.current) {
      now.current = next;
      onTry(next);
    }
  };
  const release = () => {
    if (scrub.current && scrub.current.from !== now.current) void onKeep();
    scrub.current = null;
  };

  const wrong = complaint !== null || errors.length > 0;
  return (
    <div className={`row-field${wrong ? ' is-wrong' : ''}`}>
      <label
        htmlFor={id}
        className="scrub"
        title="Drag to change"
        onPointerDown={grab}
        onPointerMove={slide}
        onPointerUp={release}
      >
        {label}
      </label>
      {isStandard === false && props.onStandard && (
        <Button
          variant="plain"
          className="standard"
          onClick={props.onStandard}
          title="Back to the trade’s default"
        >
          default
        </Button>
      )}
      <span className="entry">
        <input
          id={id}
          className={isStandard ? 'figure is-standard' : 'figure'}
          value={typed ?? text}
          inputMode="text"
          autoComplete="off"
          spellCheck={false}
          data-pending={typed !== null || undefined}
          aria-invalid={wrong}
          aria-describedby={wrong ? `${id}-wrong` : note ? `${id}-note` : undefined}
          onChange={(event) => {
            setTyped(event.target.value);
            void read(event.target.value);
          }}
          onKeyDown={key}
          onFocus={(event) => {
            event.target.select();
            isFresh.current = true;
            props.onFocus?.(true);
          }}
          onMouseUp={(event) => {
            // Releasing the button would undo the selection that focus made.
            if (isFresh.current) event.preventDefault();
            isFresh.current = false;
          }}
          onBlur={() => {
            void finish();
            props.onFocus?.(false);
          }}
        />
        <span className="unit">{SUFFIX[measured] ?? unit.unit}</span>
      </span>
      {note && (
        <span id={`${id}-note`} className="visually-hidden">
          {note}
        </span>
      )}
      <Problems id={`${id}-wrong`} complaint={complaint} errors={errors} onApply={apply} />
    </div>
  );
}
