/** A new job: first of all, what is it? */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Alert } from 'react-bootstrap';
import { Link, useNavigate } from 'react-router';

import { api } from '../api/client';
import { useMeta } from '../api/queries';
import type { Job } from '../api/generated/types';
import { Catalogue } from './Catalogue';

export function NewJobPage() {
  const meta = useMeta();
  const navigate = useNavigate();
  const client = useQueryClient();
  const create = useMutation({
    mutationFn: (job: Job) => api.createJob(job),
    onSuccess: (opened) => {
      void client.invalidateQueries({ queryKey: ['jobs'] });
      void navigate(`/jobs/${opened.id}/form`);
    },
  });
  const start = meta.data?.starts.job;
  const first = start?.pieces[0];
  return (
    <div className="jobs-page">
      <header className="top">
        <div className="brand">
          <Link to="/" className="brand-name" title="All jobs">
            Aptum
          </Link>
          <span className="brand-line">What will it be?</span>
        </div>
      </header>
      <main>
        <h1>Catalogue of structures</h1>
        {create.error && <Alert variant="danger">{create.error.message}</Alert>}
        {meta.error && <Alert variant="danger">{meta.error.message}</Alert>}
        {start && first && (
          <Catalogue
            hand={{ form: { ...first.form, structure: '' }, stock: first.stock, unit: start.unit }}
            onChoose={(form) => create.mutate({ ...start, pieces: [{ ...first, form }] })}
          />
        )}
      </main>
    </div>
  );
}
