/** The list whose rows the copies wear: brought in, its pictures beside it, and the row that is looked at. */
import { useEffect, useState } from 'react';

import { api, Failure } from '../api/client';
import { add, set } from '../api/fields';
import type { FaceView, ListView } from '../api/generated/types';
import { type PieceView, wearing } from '../api/views';
import type { PieceSession } from '../job/pieces';

/** How a list is read, where that is not found. */
export interface Told {
  coding?: string;
  separator?: string;
  head?: boolean;
}

export interface ListDesk {
  /** The file that was brought in last, and how it was read. */
  read: { file: File; view: ListView } | null;
  trouble: string | null;
  isComing: boolean;
  /** The row that is looked at, from 0. */
  row: number;
  onRow: (row: number) => void;
  /** Reads a file and gives each of its rows a copy. */
  bring: (file: File, told?: Told) => void;
  bringPictures: (files: File[]) => void;
}

export function useList(session: PieceSession): ListDesk {
  const [read, setRead] = useState<ListDesk['read']>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [isComing, setComing] = useState(false);
  const [row, setRow] = useState(0);
  const list = session.own.list ?? null;
  const last = Math.max(0, (list?.rows.length ?? 0) - 1);
  const attempt = async (what: string, work: () => Promise<unknown>) => {
    setComing(true);
    setTrouble(null);
    try {
      await work();
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
      setTrouble(`${what}: ${error.message}`);
    }
    setComing(false);
  };
  return {
    read,
    trouble,
    isComing,
    row: Math.min(row, last),
    onRow: (next) => setRow(Math.max(0, Math.min(next, last))),
    bring: (file, told = {}) =>
      void attempt(file.name, async () => {
        const view = await api.readList(file, told);
        const rows = view.list.rows.length;
        // Pictures of the list before serve again.
        const next = { ...view.list, pictures: list?.pictures ?? [] };
        await session.keep(
          set(session.at('list'), next),
          ...(rows > 0 ? [set(session.at('copies'), rows)] : []),
        );
        setRead({ file, view });
        setRow(0);
      }),
    bringPictures: (files) =>
      void attempt('Pictures', async () => {
        const changes = [];
        for (const file of files) {
          const { id, pixels, drawn } = await api.addBlob(file);
          const picture = { name: file.name, blob: id, pixels, drawn };
          changes.push(add(session.at('list.pictures'), picture));
        }
        if (changes.length > 0) await session.keep(...changes);
      }),
  };
}

/** The piece as the copy of a row wears it; until the server has answered, as it was. */
export function useRow(session: PieceSession, piece: PieceView, row: number): PieceView {
  const [worn, setWorn] = useState<FaceView | null>(null);
  const { job, own } = session;
  const isMerged = piece.layers.some((layer) => layer.is_by_row);
  useEffect(() => {
    if (row === 0 || !isMerged) return;
    const asked = new AbortController();
    api
      .row(job, own.id, row, asked.signal)
      .then(setWorn)
      // What is wrong with the job is said elsewhere.
      .catch(() => undefined);
    return () => asked.abort();
  }, [job, own.id, row, isMerged]);
  return row > 0 && isMerged && worn ? wearing(piece, worn) : piece;
}
