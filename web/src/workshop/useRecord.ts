/**
 * A record that is being edited. A change is saved at once while no job uses the record; else it is held until
 * the user has seen which jobs it reaches.
 */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';

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

/** Does one change of the workshop after the other, whichever part of the page they come from. */
export function useInTurn() {
  const { mutateAsync } = useMutation({
    scope: { id: 'workshop' },
    mutationFn: (work: () => Promise<unknown>) => work(),
  });
  return <T>(work: () => Promise<T>) => mutateAsync(work) as Promise<T>;
}

function problemsOf(error: unknown): InputError[] {
  return error instanceof Failure ? error.problem.errors : [];
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
  const inTurn = useInTurn();
  const client = useQueryClient();
  const [draft, setDraft] = useState<Entry | null>(null);
  const [refused, setRefused] = useState<InputError[]>([]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [isSaving, setSaving] = useState(false);
  const key = `${saved.kind}/${id}`;
  const waiting = held.all[key];
  const record = draft ?? waiting?.record ?? saved;
  const users = state.uses[key] ?? [];
  const drawn = useQuery({
    queryKey: ['record-drawing', record, unit],
    queryFn: ({ signal }) => api.drawRecord(record, unit, signal),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 5000,
  });
  const undrawn = problemsOf(drawn.error);
  const propose = (next: Entry) => {
    setRefused([]);
    setDraft(next);
  };
  // Saves go out one after the other; one that a newer one has overtaken has nothing more to say.
  const saves = useRef({ newest: 0, busy: Promise.resolve(), made: '' });
  const save = (next: Entry) => {
    const base = waiting?.base ?? JSON.stringify(saved);
    const mine = ++saves.current.newest;
    const isNewest = () => mine === saves.current.newest;
    setSaving(true);
    saves.current.busy = saves.current.busy.then(async () => {
      if (!isNewest()) return;
      try {
        await inTurn(() => send(next, base, isNewest));
      } catch (error) {
        if (!isNewest()) return;
        const errors = problemsOf(error);
        setDraft(next);
        setRefused(errors);
        if (errors.length === 0) setTrouble(error instanceof Error ? error.message : String(error));
      } finally {
        if (isNewest()) setSaving(false);
      }
    });
  };
  const written = (from: WorkshopState) =>
    JSON.stringify({ kind: saved.kind, ...(from.workshop[saved.kind] ?? {})[id] });
  const send = async (next: Entry, base: string, isNewest: () => boolean) => {
    const current = await api.workshopState();
    const now = written(current);
    if (now !== base && now !== saves.current.made) {
      held.hold(key, { record: next, base: now });
      setTrouble(
        'Another window has changed this record. It is shown as it is now; your change is still in the fields.',
      );
      void client.invalidateQueries({ queryKey: ['workshop-state'] });
      return;
    }
    const changed = await api.changeRecord(current.version, id, next, unit);
    saves.current.made = written(changed);
    show(changed);
    if (!isNewest()) return;
    setDraft(null);
    setRefused([]);
    held.hold(key, null);
    setTrouble(null);
  };
  return {
    record,
    users,
    isHeld: JSON.stringify(record) !== JSON.stringify(saved),
    isWaiting: waiting !== undefined,
    isSaving,
    errors: undrawn.length > 0 ? undrawn : refused,
    trouble,
    drawing: drawn.data ?? null,
    propose,
    keep: (next) => {
      if (users.length === 0) {
        propose(next);
        save(next);
        return;
      }
      setDraft(null);
      held.hold(key, { record: next, base: waiting?.base ?? JSON.stringify(saved) });
    },
    release: () => {
      save(record);
    },
    drop: () => {
      setDraft(null);
      held.hold(key, null);
      setRefused([]);
      setTrouble(null);
    },
  };
}
