/** The list of jobs: what each is, how it stands, and how to start another. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Alert, Button, Form } from 'react-bootstrap';
import { useNavigate } from 'react-router';

import { api } from '../api/client';
import { useJobs } from '../api/queries';
import type { JobSummary } from '../api/generated/types';
import '../trace/trace.css';
import { JobTicket } from './JobTicket';
import { PictureStart } from './PictureStart';
import { ART } from '../drawing/kinds';

type Order = 'changed' | 'name' | 'state';

/** How urgent a state is. */
const URGENT: Record<string, number> = { broken: 0, attention: 1, fits: 2 };

/** The server gives jobs by their last change; sorting keeps that order among equals. */
const ORDERS: Record<Order, { label: string; compare: (a: JobSummary, b: JobSummary) => number }> =
  {
    changed: { label: 'last change', compare: () => 0 },
    name: { label: 'name', compare: (a, b) => a.name.localeCompare(b.name) },
    state: {
      label: 'what needs attention',
      compare: (a, b) => (URGENT[a.state ?? 'broken'] ?? 0) - (URGENT[b.state ?? 'broken'] ?? 0),
    },
  };

export function JobsPage() {
  const jobs = useJobs();
  const client = useQueryClient();
  const navigate = useNavigate();
  const file = useRef<HTMLInputElement>(null);
  const picture = useRef<HTMLInputElement>(null);
  const [drawn, setDrawn] = useState<File | null>(null);
  const [isOver, setOver] = useState(false);
  const [binned, setBinned] = useState<JobSummary | null>(null);
  const [sought, setSought] = useState('');
  const [order, setOrder] = useState<Order>('changed');
  useEffect(() => {
    document.title = 'Jobs · Aptum';
  }, []);

  const open = (id: number) => navigate(`/jobs/${id}/form`);
  const refresh = () => client.invalidateQueries({ queryKey: ['jobs'] });
  const bring = useMutation({
    mutationFn: api.importJob,
    onSuccess: async (job) => {
      await client.invalidateQueries({ queryKey: ['workshop'] });
      await open(job.id);
    },
  });
  const bin = useMutation({
    mutationFn: (job: JobSummary) => api.binJob(job.id),
    onSuccess: (_, job) => {
      setBinned(job);
      return refresh();
    },
  });
  const unbin = useMutation({
    mutationFn: (job: JobSummary) => api.unbinJob(job.id),
    onSuccess: () => {
      setBinned(null);
      return refresh();
    },
  });
  const copy = useMutation({
    mutationFn: (job: JobSummary) => api.copyJob(job.id),
    onSuccess: refresh,
  });
  // A job file is brought in, anything else is a picture or a drawing.
  const take = (dropped: File) => {
    if (/\.(aptum|zip|json)$/i.test(dropped.name)) bring.mutate(dropped);
    else setDrawn(dropped);
  };
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData('text/plain').trim() ?? '';
      // A drawing program may put the drawing's text there.
      const isDrawing = /^(<\?xml|<svg|\{)/.test(text);
      const pasted =
        event.clipboardData?.files[0] ??
        (isDrawing ? new File([text], text.startsWith('{') ? 'pasted.fold' : 'pasted.svg') : null);
      if (!pasted || (event.target as HTMLElement).matches('input, textarea')) return;
      event.preventDefault();
      setDrawn(pasted);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, []);
  const failed = copy.error ?? bring.error ?? bin.error ?? unbin.error ?? jobs.error;
  const start = () => void navigate('/new');
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = [...(jobs.data ?? [])]
    .filter((job) => {
      const text = `${job.name} ${job.structure} ${job.stock} ${job.size}`.toLowerCase();
      return words.every((word) => text.includes(word));
    })
    .sort(ORDERS[order].compare);
  return (
    <div
      className={`jobs-page${isOver ? ' is-over' : ''}`}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes('Files')) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        setOver(false);
        const dropped = event.dataTransfer.files[0];
        if (!dropped) return;
        event.preventDefault();
        take(dropped);
      }}
    >
      {drawn && <PictureStart file={drawn} onClose={() => setDrawn(null)} />}
      <header className="top">
        <div className="brand">
          <span className="brand-name">Aptum</span>
          <span className="brand-line">
            It fits, folds and cuts true. You know before you print.
          </span>
        </div>
        <div className="tools">
          <input
            ref={file}
            type="file"
            accept=".aptum,.zip,.json"
            className="visually-hidden"
            aria-label="Job file"
            tabIndex={-1}
            onChange={(event) => {
              const chosen = event.target.files?.[0];
              if (chosen) bring.mutate(chosen);
              event.target.value = '';
            }}
          />
          <input
            ref={picture}
            type="file"
            accept={ART}
            className="visually-hidden"
            aria-label="Picture"
            tabIndex={-1}
            onChange={(event) => {
              const chosen = event.target.files?.[0];
              if (chosen) setDrawn(chosen);
              event.target.value = '';
            }}
          />
          <Button variant="light" onClick={() => void navigate('/workshop')}>
            Workshop
          </Button>
          <Button variant="light" onClick={() => void navigate('/queue')}>
            Queue
          </Button>
          <Button variant="light" onClick={() => void navigate('/handbook')}>
            Handbook
          </Button>
          <Button variant="light" onClick={() => void navigate('/logbook')}>
            Logbook
          </Button>
          <Button variant="light" onClick={() => void navigate('/bin')}>
            Bin
          </Button>
          <Button variant="light" onClick={() => file.current?.click()}>
            Bring a job in
          </Button>
          <Button variant="light" onClick={() => picture.current?.click()}>
            From a picture or drawing
          </Button>
          <Button onClick={start}>New job</Button>
        </div>
      </header>
      <main>
        <div className="jobs-head">
          <h1>Jobs</h1>
          <input
            type="search"
            className="form-control"
            aria-label="Find a job"
            placeholder="Find by name, structure or stock"
            value={sought}
            onChange={(event) => setSought(event.target.value)}
          />
          <label>
            Sorted by{' '}
            <Form.Select
              size="sm"
              value={order}
              onChange={(event) => setOrder(event.target.value as Order)}
            >
              {Object.entries(ORDERS).map(([value, { label }]) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </Form.Select>
          </label>
        </div>
        {failed && <Alert variant="danger">{failed.message}</Alert>}
        {binned && (
          <Alert variant="light" className="binned">
            “{binned.name}” is in the bin.{' '}
            <Button size="sm" variant="outline-primary" onClick={() => unbin.mutate(binned)}>
              Bring it back
            </Button>
          </Alert>
        )}
        {jobs.data?.length === 0 && (
          <p className="empty">
            A job is one thing you make: a carton, a tag, a set of tabs; its card, its sheets.
            Choose its structure and give it the size of what goes in.{' '}
            <Button onClick={start}>Choose a structure</Button>
          </p>
        )}
        {sought !== '' && shown.length === 0 && (
          <p className="empty" role="status">
            No job is found by “{sought}”.
          </p>
        )}
        <ul className="tickets">
          {shown.map((job) => (
            <li key={job.id}>
              <JobTicket job={job} onBin={() => bin.mutate(job)} onCopy={() => copy.mutate(job)} />
            </li>
          ))}
        </ul>
      </main>
    </div>
  );
}
