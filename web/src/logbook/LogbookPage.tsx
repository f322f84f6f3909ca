/** The Logbook: what was tried on which card with what, and what came of it. */
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Alert, Button } from 'react-bootstrap';
import { Link, useNavigate } from 'react-router';

import { api, Failure } from '../api/client';
import type { JobSummary, LogView } from '../api/generated/types';
import { useJobs } from '../api/queries';
import { JobFlat } from '../jobs/JobFlat';
import { Find, PageTop } from '../top/PageTop';
import { useSearchText } from '../top/useSearchText';
import './logbook.css';

export function LogbookPage() {
  const [text, setText] = useSearchText();
  const navigate = useNavigate();
  const [trouble, setTrouble] = useState<string | null>(null);
  const client = useQueryClient();
  const book = useQuery({
    queryKey: ['logbook', text],
    queryFn: () => api.logbook(text),
    placeholderData: keepPreviousData,
  });
  useEffect(() => {
    document.title = 'Logbook · Aptum';
  }, []);
  const attempt = async (work: () => Promise<unknown>) => {
    try {
      await work();
      setTrouble(null);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(error.message);
    }
    await client.invalidateQueries({ queryKey: ['logbook'] });
  };
  const view = book.data;
  const jobs = useJobs().data ?? [];
  return (
    <div className="desk logbook">
      <PageTop title="Logbook" tools={<Link to="/workshop/recipes">Recipes</Link>}>
        <Find
          label="Find in the Logbook"
          example="Card, cutter, line, outcome, day …"
          text={text}
          onText={setText}
        />
      </PageTop>
      <main className="logbook-page">
        {(book.error ?? trouble) && (
          <Alert variant="danger">{book.error?.message ?? trouble}</Alert>
        )}
        {view && (
          <>
            <p className="logbook-sum" role="status">
              {view.found === view.all
                ? `${view.all} entries`
                : `${view.found} of ${view.all} entries`}
              {view.entries.length < view.found && `, the newest ${view.entries.length} here`}
            </p>
            {view.all === 0 && (
              <p className="empty">
                Nothing has been tried yet. Open a job, go to Tooling and cut a test: each outcome
                is kept here.
              </p>
            )}
            <table className="logbook-table">
              <thead>
                <tr>
                  <th>
                    <span className="visually-hidden">Picture</span>
                  </th>
                  <th>When</th>
                  <th>Card and job</th>
                  <th>What</th>
                  <th>Settings sent</th>
                  <th>Came out</th>
                  <th>Note</th>
                  <th>
                    <span className="visually-hidden">Take out</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {view.entries.map((own) => (
                  <Entry
                    key={own.id}
                    own={own}
                    job={jobs.find(({ id }) => id === own.entry.job?.id)}
                    attempt={(work) => void attempt(work)}
                    onOpen={(print) =>
                      void attempt(async () => {
                        const { id } = await api.asPrinted(print);
                        void navigate(`/jobs/${id}/sheet`);
                      })
                    }
                  />
                ))}
              </tbody>
            </table>
          </>
        )}
      </main>
    </div>
  );
}

interface EntryProps {
  own: LogView;
  attempt: (work: () => Promise<unknown>) => void;
  /** Its job as it is now, which stands for it where no print was kept. */
  job: JobSummary | undefined;
  /** Opens the job of a print as it was. */
  onOpen: (print: number) => void;
}

function Entry({ own, job, attempt, onOpen }: EntryProps) {
  const { id, entry } = own;
  const [note, setNote] = useState<string | null>(null);
  const keep = () => {
    if (note !== null && note !== entry.note)
      attempt(() => api.changeLog(id, { outcome: entry.outcome, note }));
    setNote(null);
  };
  return (
    <tr>
      <td className="logbook-picture">
        {own.print !== null ? (
          <img
            className="is-print"
            src={`/api/prints/${own.print}/picture.png`}
            alt=""
            loading="lazy"
          />
        ) : (
          job &&
          (job.folded ? (
            <img src={job.folded} alt="" loading="lazy" />
          ) : (
            <JobFlat job={job} isWorn />
          ))
        )}
      </td>
      <td className="figure">
        {own.made_at}
        {entry.sheet && <small>sheet {entry.sheet.code}</small>}
      </td>
      <td>
        {entry.stock.name}
        {entry.job && (
          <Link to={`/jobs/${entry.job.id}/tooling`} className="logbook-job">
            {entry.job.name}
          </Link>
        )}
        {own.print !== null && (
          <Button size="sm" variant="link" onClick={() => onOpen(own.print ?? 0)}>
            The job as it was then
          </Button>
        )}
      </td>
      <td>
        {own.what}
        <small>{entry.cutter.name}</small>
        {entry.printed && <small>printed on {entry.printed.printer.name}</small>}
      </td>
      <td>
        <span className="figure">{own.settings}</span>
        {own.printed !== '' && <small>printed: {own.printed}</small>}
      </td>
      <td>
        <span className={`outcome outcome-${entry.outcome}`}>{own.outcome}</span>
        {own.counted !== '' && <small>{own.counted}</small>}
      </td>
      <td>
        <label htmlFor={`note-${id}`} className="visually-hidden">
          Note of {own.made_at}
        </label>
        <input
          id={`note-${id}`}
          className="row-text"
          placeholder="note"
          value={note ?? entry.note}
          maxLength={400}
          onChange={(event) => setNote(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => {
            if (event.key === 'Enter') keep();
          }}
        />
      </td>
      <td>
        <Button
          size="sm"
          variant="link"
          aria-label={`Take out the entry of ${own.made_at}`}
          onClick={() => attempt(() => api.unlog(id))}
        >
          Take out
        </Button>
      </td>
    </tr>
  );
}
