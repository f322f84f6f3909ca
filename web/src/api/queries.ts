/** Server state that several views share. */
import { useQuery } from '@tanstack/react-query';

import { api, Failure } from './client';
import type { Unit, UnitInfo } from './generated/types';

export function useMeta() {
  return useQuery({
    queryKey: ['meta'],
    queryFn: api.meta,
    staleTime: Infinity,
    // What the server refuses it refuses again.
    retry: (count, error) => count < 1 && !(error instanceof Failure && error.problem.status > 0),
  });
}

export function useWorkshop() {
  return useQuery({ queryKey: ['workshop'], queryFn: api.workshop });
}

/** Milliseconds after which summaries that are worked out anew are asked for again. */
const AGAIN = 400;

export function useJobs() {
  return useQuery({
    queryKey: ['jobs'],
    queryFn: api.jobs,
    refetchInterval: ({ state }) => (state.data?.some((job) => !job.is_current) ? AGAIN : false),
  });
}

const MILLIMETRES: UnitInfo = { unit: 'mm', millimetres: 1, step: 1, divisions: 10, decimals: 2 };

/** What is known of a unit; millimetres until the server has answered. */
export function useUnit(unit: Unit): UnitInfo {
  return useMeta().data?.units.find((known) => known.unit === unit) ?? MILLIMETRES;
}
