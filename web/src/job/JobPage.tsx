import { useQuery } from '@tanstack/react-query';
import { Alert, Button } from 'react-bootstrap';
import { Link, Navigate, useParams } from 'react-router';

import { api } from '../api/client';
import { useWorkshop } from '../api/queries';
import { JobDesk } from './JobDesk';
import { asStage } from './stages';

/** Opens the job that the address names. */
export function JobPage() {
  const { id: text, stage: name } = useParams();
  const id = Number(text);
  const stage = asStage(name);
  // Opened afresh each time: what another window did in between must be seen.
  const opened = useQuery({
    queryKey: ['open', id],
    queryFn: () => api.openJob(id),
    gcTime: 0,
    staleTime: Infinity,
    retry: false,
  });
  const workshop = useWorkshop();
  const failed = opened.error ?? workshop.error;
  if (stage === null) return <Navigate to={`/jobs/${id}/form`} replace />;
  if (failed) {
    return (
      <main className="message-page">
        <Alert variant="danger">{failed.message}</Alert>
        <Button
          onClick={() => {
            void opened.refetch();
            void workshop.refetch();
          }}
        >
          Try again
        </Button>{' '}
        <Link to="/">All jobs</Link>
      </main>
    );
  }
  if (!opened.data || !workshop.data) {
    return <main className="message-page" aria-busy="true" />;
  }
  return <JobDesk key={id} opened={opened.data} stage={stage} workshop={workshop.data} />;
}
