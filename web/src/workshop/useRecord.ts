/**
 * A record that is being edited. A change is saved at once while no job uses the record; else it is held until
 * the user has seen which jobs it reaches.
 */
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';

import { api, Failure } from '../api/client';
import type {
  InputError,
  Record as Entry,
  RecordDrawing,
  RecordUse,
  Unit,
  WorkshopState,
} from '../api/generated/types';
import type { HeldChanges } from './useHeld';

export interface RecordSession<R extends Entry = Entry> {
  record: R;
  /** Jobs that use it. */
  users: RecordUse[];
  /** True while there are changes that are not saved. */
  isHeld: boolean;
  /** True when they wait for the user’s word. */
  isWaiting: boolean;
  isSaving: boolean;
  errors: InputError[];
  trouble: string | null;
  drawing: RecordDrawing | null;
  /** Shows a change without saving it. */
  propose: (record: R) => void;
  /** Saves a change, or holds it while jobs use the record. */
  keep: (record: R) => void;
  /** Saves what is held, for all jobs. */
  release: () => void;
  drop: () => void;
}

export function useWorkshopState() {
  return useQuery({ queryKey: ['workshop-state'], queryFn: api.workshopState });
}

export function useShowState() {
  const client = useQueryClient();
  return (state: WorkshopState) => {
    client.setQueryData(['workshop-state'], state);
    client.setQueryData(['workshop'], state.workshop);
    void client.invalidateQueries({ queryKey: ['jobs'] });
  };
}

interface Opened {
  id: string;
  saved: Entry;
  state: WorkshopState;
  held: HeldChanges;
  unit: Unit;
}

export function useRecord({ id, saved, state, held, unit }: Opened): RecordSession {
  const show = useShowState();
  const client = useQueryClient();
  const [draft, setDraft] = useState<Entry | null>(null);
  const [errors, setErrors] = useState<InputError[]>([]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [isSaving, setSaving] = useState(false);
  const key = `${saved.kind}/${id}`;
  const waiting = held.all[key];
  const record = draft ?? waiting?.record ?? saved;
  const users = state.uses[key] ?? [];
  const drawn = useQuery({
    queryKey: ['record-drawing', record, unit],
    queryFn: async ({ signal }) => {
      try {
        const drawing = await api.drawRecord(record, unit, signal);
        setErrors([]);
        return drawing;
      } catch (error) {
        if (error instanceof Failure) setErrors(error.problem.errors);
        throw error;
      }
    },
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 5000,
  });
  const save = async (next: Entry) => {
    setSaving(true);
    try {
      const current = await api.workshopState();
      const now = JSON.stringify({ kind: saved.kind, ...current.workshop[saved.kind][id] });
      if (now !== (waiting?.base ?? JSON.stringify(saved))) {
        held.hold(key, { record: next, base: now });
        setTrouble(
          'Another window has changed this record. It is shown as it is now; your change is still in the fields.',
        );
        void client.invalidateQueries({ queryKey: ['workshop-state'] });
        return;
      }
      show(await api.changeRecord(current.version, id, next, unit));
      setDraft(null);
      held.hold(key, null);
      setTrouble(null);
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setDraft(next);
      setErrors(error.problem.errors);
      if (error.problem.errors.length === 0) setTrouble(error.message);
    } finally {
      setSaving(false);
    }
  };
  return {
    record,
    users,
    isHeld: JSON.stringify(record) !== JSON.stringify(saved),
    isWaiting: waiting !== undefined,
    isSaving,
    errors,
    trouble,
    drawing: drawn.data ?? null,
    propose: setDraft,
    keep: (next) => {
      if (users.length === 0) {
        setDraft(next);
        void save(next);
        return;
      }
      setDraft(null);
      held.hold(key, { record: next, base: waiting?.base ?? JSON.stringify(saved) });
    },
    release: () => void save(record),
    drop: () => {
      setDraft(null);
      held.hold(key, null);
      setErrors([]);
      setTrouble(null);
    },
  };
}
