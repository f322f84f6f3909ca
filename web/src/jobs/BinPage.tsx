/** The bin: jobs that were put away, until they are brought back or removed for good. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Alert, Button, Modal } from 'react-bootstrap';
import { Link } from 'react-router';

import { api } from '../api/client';
import type { BinnedJob } from '../api/generated/types';

export function BinPage() {
  const client = useQueryClient();
  const binned = useQuery({ queryKey: ['bin'], queryFn: api.binned });
  const [doomed, setDoomed] = useState<BinnedJob | 'all' | null>(null);
  useEffect(() => {
    document.title = 'Bin · Aptum';
  }, []);
  const refresh = async () => {
    setDoomed(null);
    await client.invalidateQueries({ queryKey: ['bin'] });
    await client.invalidateQueries({ queryKey: ['jobs'] });
  };
  const back = useMutation({ mutationFn: api.unbinJob, onSuccess: refresh });
  const remove = useMutation({
    mutationFn: (what: BinnedJob | 'all') =>
      what === 'all' ? api.emptyBin() : api.removeJob(what.id),
    onSuccess: refresh,
  });
  const failed = back.error ?? remove.error ?? binned.error;
  const jobs = binned.data ?? [];
  return (
    <div className="jobs-page">
      <header className="top">
        <div className="brand">
          <Link to="/" className="brand-name" title="All jobs">
            Aptum
          </Link>
          <span className="brand-line">Bin</span>
        </div>
        <div className="tools">
          <Button variant="light" disabled={jobs.length === 0} onClick={() => setDoomed('all')}>
            Empty the bin
          </Button>
        </div>
      </header>
      <main>
        <h1>Bin</h1>
        {failed && <Alert variant="danger">{failed.message}</Alert>}
        {binned.data?.length === 0 && (
          <p className="empty">
            Nothing is in the bin. <Link to="/">All jobs</Link>
          </p>
        )}
        <ul className="bin-list">
          {jobs.map((job) => (
            <li key={job.id}>
              <span>{job.name}</span>
              <Button
                size="sm"
                variant="outline-primary"
                aria-label={`Bring it back: ${job.name}`}
                onClick={() => back.mutate(job.id)}
              >
                Bring it back
              </Button>
              <Button
                size="sm"
                variant="light"
                aria-label={`Remove for good: ${job.name}`}
                onClick={() => setDoomed(job)}
              >
                Remove for good
              </Button>
            </li>
          ))}
        </ul>
      </main>
      <Modal show={doomed !== null} onHide={() => setDoomed(null)} centered>
        <Modal.Header closeButton>
          <Modal.Title>
            {doomed === 'all' ? `Remove all ${jobs.length} jobs?` : `Remove “${doomed?.name}”?`}
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>They and their history go for good; nothing brings them back.</Modal.Body>
        <Modal.Footer>
          <Button variant="light" onClick={() => setDoomed(null)}>
            Keep
          </Button>
          <Button onClick={() => doomed && remove.mutate(doomed)}>Remove for good</Button>
        </Modal.Footer>
      </Modal>
    </div>
  );
}
