/** A button that brings a drawing in: SVG, DXF, FOLD, or a page of a PDF. */
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import type { BroughtDrawing } from '../api/generated/types';

interface Props {
  label: string;
  onBrought: (brought: BroughtDrawing) => void;
}

export const DRAWINGS = '.svg,.dxf,.pdf,.fold';

export function BringDrawing({ label, onBrought }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const bring = async (chosen: File) => {
    setTrouble(null);
    try {
      onBrought(await api.bringDrawing(chosen));
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
    }
  };
  return (
    <>
      <input
        ref={file}
        type="file"
        accept={DRAWINGS}
        className="visually-hidden"
        aria-label="Drawing"
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) void bring(chosen);
          event.target.value = '';
        }}
      />
      <Button size="sm" variant="outline-primary" onClick={() => file.current?.click()}>
        {label}
      </Button>
      {trouble && (
        <p className="lay-note lay-trouble" role="alert">
          {trouble}
        </p>
      )}
    </>
  );
}
