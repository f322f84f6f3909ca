/** A typeface of one's own: brought in, or one that the job has already. */
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import type { OwnTypeface as Own } from '../api/generated/types';
import type { PieceSession } from '../job/pieces';

interface Props {
  /** The one that is chosen. */
  own: Own | null;
  session: PieceSession;
  onChoose: (own: Own) => void;
}

export function OwnTypeface({ own, session, onChoose }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [isComing, setComing] = useState(false);
  const bring = async (chosen: File) => {
    setTrouble(null);
    setComing(true);
    try {
      const { id, name } = await api.addFont(chosen);
      onChoose({ blob: id, origin: { name, source: chosen.name, licence: '', note: '' } });
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(`${chosen.name}: ${error.message}`);
    }
    setComing(false);
  };
  return (
    <div className="own-typeface">
      {inJob(session).map((known) => (
        <Button
          key={known.blob}
          variant="plain"
          aria-pressed={known.blob === own?.blob}
          onClick={() => onChoose(known)}
        >
          {known.origin.name}
        </Button>
      ))}
      <Button variant="plain" disabled={isComing} onClick={() => file.current?.click()}>
        your own …
      </Button>
      <input
        ref={file}
        type="file"
        className="visually-hidden"
        aria-label="Typeface file"
        tabIndex={-1}
        accept=".ttf,.otf,.woff2"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen) void bring(chosen);
        }}
      />
      {trouble && (
        <p className="lay-note lay-trouble" role="alert">
          {trouble}
        </p>
      )}
    </div>
  );
}

/** The typefaces of one's own that the job's words are set in, each once. */
function inJob(session: PieceSession): Own[] {
  const found = new Map<string, Own>();
  for (const piece of session.job.pieces)
    for (const layer of piece.face?.layers ?? []) {
      const own =
        layer.kind === 'text'
          ? layer.own_typeface
          : layer.kind === 'pattern' && layer.motif_of?.of === 'word'
            ? layer.motif_of.own_typeface
            : null;
      if (own) found.set(own.blob, own);
    }
  return [...found.values()];
}
