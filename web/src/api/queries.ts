/** Server state that several views share. */
import { useQuery } from '@tanstack/react-query';

import { api } from './client';
import type { Unit, UnitInfo } from './generated/types';

export function useMeta() {
  return useQuery({ queryKey: ['meta'], queryFn: api.meta, staleTime: Infinity });
}

export function useWorkshop() {
  return useQuery({ queryKey: ['workshop'], queryFn: api.workshop });
}

export function useJobs() {
  return useQuery({ queryKey: ['jobs'], queryFn: api.jobs });
}

const MILLIMETRES: UnitInfo = { unit: 'mm', millimetres: 1, step: 1, divisions: 10, decimals: 2 };

/** What is known of a unit; millimetres until the server has answered. */
export function useUnit(unit: Unit): UnitInfo {
  return useMeta().data?.units.find((known) => known.unit === unit) ?? MILLIMETRES;
}
