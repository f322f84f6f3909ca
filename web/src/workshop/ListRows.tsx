/** A list inside a record: each entry has rows of its own, is added and is removed. */
import type { ReactNode } from 'react';
import { Button } from 'react-bootstrap';

import { Rows } from '../card/SpecCard';

interface Props<T> {
  title: string;
  entries: T[];
  /** How many there may be. */
  most: number;
  nameOf: (entry: T) => string;
  /** What a new entry starts as. */
  next: () => T;
  onChange: (entries: T[]) => void;
  /** An entry's rows; `change` gives the list with a part of the entry changed. */
  rows: (entry: T, at: number, change: (part: Partial<T>) => T[]) => ReactNode;
  /** Rows of the same title below the list. */
  children?: ReactNode;
}

export function ListRows<T>(props: Props<T>) {
  const { title, entries, most, nameOf, next, onChange, rows, children } = props;
  return (
    <Rows
      title={title}
      aside={
        entries.length < most && (
          <Button variant="plain" onClick={() => onChange([...entries, next()])}>
            add
          </Button>
        )
      }
    >
      {entries.map((entry, at) => (
        <div key={at} className="station-rows">
          {rows(entry, at, (part) =>
            entries.map((other, index) => (index === at ? { ...other, ...part } : other)),
          )}
          {entries.length > 1 && (
            <Button
              variant="plain"
              onClick={() => onChange(entries.filter((_, other) => other !== at))}
            >
              remove {nameOf(entry)}
            </Button>
          )}
        </div>
      ))}
      {children}
    </Rows>
  );
}
