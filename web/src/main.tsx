import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/fraunces';
import '@fontsource/spline-sans-mono/latin-400.css';
import '@fontsource/spline-sans-mono/latin-600.css';
import 'bootstrap/dist/css/bootstrap.min.css';
import './style/tokens.css';
import './style/base.css';
import './top/top.css';
import './job/desk.css';
import './board/sheet-drawing.css';
import './run/run.css';
import './card/card.css';
import './fit/fit.css';
import './jobs/jobs.css';
import './board/handle.css';
import './fold/fold.css';
import './form/form.css';
import './board/inks.css';
import './face/face.css';
import './face/rework.css';
import './catalogue/catalogue.css';
import './sheet/sheet.css';
import './workshop/workshop.css';

import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';

import { Door } from './job/Door';
import { Mended } from './job/Mended';
import { JobsPage } from './jobs/JobsPage';
import {
  BinPage,
  fetchAhead,
  HandbookPage,
  JobPage,
  LogbookPage,
  NewJobPage,
  QueuePage,
  WorkshopPage,
} from './pages';

// The server is on this machine: it answers whether or not the machine has a network.
const client = new QueryClient({
  defaultOptions: {
    queries: { retry: 1, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
});
const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <Mended what="The page">
            <Door>
              <Suspense>
                <Routes>
                  <Route path="/" element={<JobsPage />} />
                  <Route path="/bin" element={<BinPage />} />
                  <Route path="/logbook" element={<LogbookPage />} />
                  <Route path="/queue" element={<QueuePage />} />
                  <Route path="/handbook" element={<HandbookPage />} />
                  <Route path="/handbook/:page" element={<HandbookPage />} />
                  <Route path="/new" element={<NewJobPage />} />
                  <Route path="/workshop" element={<Navigate to="/workshop/stocks" replace />} />
                  <Route path="/workshop/:kind" element={<WorkshopPage />} />
                  <Route path="/workshop/:kind/:id" element={<WorkshopPage />} />
                  <Route path="/jobs/:id" element={<Navigate to="form" replace />} />
                  <Route path="/jobs/:id/:stage" element={<JobPage />} />
                  <Route path="*" element={<Navigate to="/" replace />} />
                </Routes>
              </Suspense>
            </Door>
          </Mended>
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
  window.addEventListener('load', () => void fetchAhead());
}
