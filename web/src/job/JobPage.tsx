import { useQuery } from '@tanstack/react-query';
import { Alert, Button } from 'react-bootstrap';
import { Link, Navigate, useParams } from 'react-router';

import { api } from '../api/client';
import { useMeta, useWorkshop } from '../api/queries';
import { JobDesk } from './JobDesk';

/** Opens the job that the address names. */
export function JobPage() {
  const { id: text, stage: name } = useParams();
  const id = Number(text);
  // Opened afresh each time: what another window did in between must be seen.
  const opened = useQuery({
    queryKey: ['open', id],
    queryFn: () => api.openJob(id),
    gcTime: 0,
    staleTime: Infinity,
    retry: false,
  });
  const workshop = useWorkshop();
  const meta = useMeta();
  const failed = opened.error ?? workshop.error ?? meta.error;
  if (failed) {
    return (
      <main className="message-page">
        <Alert variant="danger">{failed.message}</Alert>
        <Button
          onClick={() => {
            void opened.refetch();
            void workshop.refetch();
            void meta.refetch();
          }}
        >
          Try again
        </Button>{' '}
        <Link to="/">All jobs</Link>
      </main>
    );
  }
  if (!opened.data || !workshop.data || !meta.data) {
    return <main className="message-page" aria-busy="true" />;
  }
  const stage = meta.data.stages.find((known) => known.stage === name)?.stage;
  if (stage === undefined) return <Navigate to={`/jobs/${id}/form`} replace />;
  return <JobDesk key={id} opened={opened.data} stage={stage} workshop={workshop.data} />;
}
