/** A length that belongs to nothing that is saved by itself: shown in its unit, typed in any. */
import { useRef } from 'react';

import type { InputError, Measured, UnitInfo } from '../api/generated/types';
import { LengthField } from './LengthField';

interface Props {
  label: string;
  note?: string;
  /** In mm, or in degrees, pieces or g/m². */
  value: number;
  unit: UnitInfo;
  measured?: Measured;
  errors?: InputError[];
  onTry?: (value: number) => void;
  onKeep: (value: number) => void;
  onApply?: (error: InputError) => void;
}

export function PlainLength(props: Props) {
  const { label, note, value, unit, measured, errors = [], onTry, onKeep, onApply } = props;
  // The newest value, also before the view has it back.
  const latest = useRef(value);
  return (
    <LengthField
      label={label}
      {...(note ? { note } : {})}
      value={value}
      unit={unit}
      {...(measured ? { measured } : {})}
      errors={errors}
      onTry={(next) => {
        latest.current = next;
        if (onTry) onTry(next);
        else onKeep(next);
      }}
      onKeep={() => {
        if (onTry) onKeep(latest.current);
        return Promise.resolve(true);
      }}
      onDrop={() => onTry?.(value)}
      onApply={onApply ?? (() => undefined)}
    />
  );
}
