/** The way back: a file that holds the job's marks is measured against them, put right, and taken. */
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { Button } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import { set } from '../api/fields';
import type { ReturnedView } from '../api/generated/types';
import { FileButton } from '../card/FileButton';
import { Result, Rows } from '../card/SpecCard';
import { ART } from '../drawing/kinds';
import type { JobSession } from '../job/useJobSession';

/** What becomes of the file. */
type Taken = 'lines' | 'print' | 'both';

export function ReturnedRows({ id, session }: { id: number; session: JobSession }) {
  const chosen = useRef<File | null>(null);
  const [found, setFound] = useState<ReturnedView | null>(null);
  const [name, setName] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const navigate = useNavigate();
  const ask = async (own: File, how?: Taken) => {
    setTrouble(null);
    try {
      const said = await api.returned(id, own, how);
      setFound(said);
      return said.job;
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
      return null;
    }
  };
  const look = async (own: File) => {
    chosen.current = own;
    setName(own.name);
    setFound(null);
    await ask(own);
  };
  const take = async (how: Taken) => {
    if (!chosen.current) return;
    const job = await ask(chosen.current, how);
    if (!job) return;
    if (how === 'print') {
      await session.keep(...job.pieces.map((own) => set(`pieces.${own.id}.face`, own.face)));
      return;
    }
    const made = await api.createJob(job);
    void navigate(`/jobs/${made.id}/sheet`);
  };
  return (
    <Rows title="Art made elsewhere">
      <p className="card-note">
        Lay the marks alone under your own art, leave them where they are, and bring the file back:
        it is measured by them and put right.
      </p>
      <div className="row-field">
        <span>A file with the marks in it</span>
        <FileButton
          label="Bring it back"
          name="File with the marks"
          accept={ART}
          onChoose={(own) => void look(own)}
        />
      </div>
      {trouble && (
        <p className="lay-note lay-trouble" role="alert">
          {trouble}
        </p>
      )}
      {found && (
        <div role="status">
          <Result label="File" value={name} />
          <Result label="Scale" value={found.scale_text} />
          {found.mistake && <p className="card-note">{found.mistake}</p>}
          <Result label="Turn" value={found.turn_text} />
          <Result label="Shift" value={found.shift_text} />
          {found.as_it_is_text && (
            <Result label="Worst mark, as it is" value={found.as_it_is_text} />
          )}
          <Result label="Worst mark, put right" value={found.worst_text} />
          <Result label="Lines beside the marks" value={String(found.lines)} />
          {found.is_accepted ? (
            <div className="returned-ways">
              {found.lines > 0 && (
                <Button size="sm" variant="primary" onClick={() => void take('lines')}>
                  Cut its lines
                </Button>
              )}
              {found.lines > 0 && found.has_art && (
                <Button size="sm" variant="outline-primary" onClick={() => void take('both')}>
                  Cut and print it
                </Button>
              )}
              {found.has_art && (
                <Button size="sm" variant="outline-primary" onClick={() => void take('print')}>
                  Print it on the pieces
                </Button>
              )}
            </div>
          ) : (
            <p className="lay-note lay-trouble" role="alert">
              A mark lies more than 0.1 mm off, also once the file is put right: it was stretched,
              or a mark was moved. Export it anew with the marks untouched.
            </p>
          )}
        </div>
      )}
    </Rows>
  );
}
