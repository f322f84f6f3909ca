/** A button that brings a drawing in: SVG, DXF, FOLD, or a page of a PDF. */
import { useState } from 'react';

import { api, Failure } from '../api/client';
import type { BroughtDrawing } from '../api/generated/types';
import { FileButton } from '../card/FileButton';
import { DRAWINGS } from './kinds';

interface Props {
  label: string;
  onBrought: (brought: BroughtDrawing) => void;
}

export function BringDrawing({ label, onBrought }: Props) {
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
      <FileButton
        label={label}
        name="Drawing"
        accept={DRAWINGS}
        onChoose={(own) => void bring(own)}
      />
      {trouble && (
        <p className="lay-note lay-trouble" role="alert">
          {trouble}
        </p>
      )}
    </>
  );
}
