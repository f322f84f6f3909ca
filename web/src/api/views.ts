/**
 * What the server shows of a job, put together: a view of each stage, of which it sends those that are not here yet.
 */
import type * as sent from './generated/types';

/** A blank with what is printed on it, and what is printed behind. */
export type PartView = sent.PartView & {
  art: sent.ArtView | null;
  behind: sent.ArtView | null;
};

export type FlatView = Omit<sent.FlatView, 'parts'> & { parts: PartView[] };

export type PieceView = Omit<sent.PieceView, 'flat' | 'face'> &
  Omit<sent.FaceView, 'arts' | 'back'> & {
    flat: FlatView;
    /** It seen from behind, where it is printed there too. */
    back: FlatView | null;
  };

export type Preview = Omit<sent.Preview, 'pieces' | 'sheet' | 'job'> & {
  pieces: PieceView[];
  sheet: sent.SheetView;
  /** What the sheets are known by. */
  sheetKey: string;
};

export type OpenJob = Omit<sent.OpenJob, 'preview'> & { preview: Preview | null };

/** Views by their keys, the one asked for last at the end. What is put together of two has both their keys. */
const views = new Map<string, object>();

/** So many are kept: the way back through some changes. */
const MOST = 48;

const KEY = 32;

/** The keys of the views that are here. */
export const known = (): string[] => [...views.keys()].filter((key) => key.length === KEY);

function keep<T extends object>(key: string, view: T): T {
  views.delete(key);
  views.set(key, view);
  for (const oldest of views.keys()) {
    if (views.size <= MOST) break;
    views.delete(oldest);
  }
  return view;
}

/** The view of a stage, sent now or before. */
function view<T extends object>({ key, view: now }: { key: string; view: T | null }): T {
  const found = now ?? (views.get(key) as T | undefined);
  if (found === undefined)
    throw new Error('The server left out a view that this page does not have.');
  return keep(key, found);
}

function pieceOf({ flat: ofFlat, face: ofFace, ...piece }: sent.PieceView): PieceView {
  const { arts, back, ...face } = view(ofFace);
  const bare = view(ofFlat);
  const both = ofFlat.key + ofFace.key;
  const worn = views.get(both) as FlatView | undefined;
  const flat = keep(both, worn ?? printed(bare, arts, back?.arts));
  return { ...piece, ...face, flat, back: back && printed(back.flat, back.arts) };
}

/** A piece whose copy wears another row of its list. */
export function wearing(piece: PieceView, { arts, back, ...face }: sent.FaceView): PieceView {
  const flat = printed(piece.flat, arts, back?.arts);
  return { ...piece, ...face, flat, back: back && printed(back.flat, back.arts) };
}

/** A flat with what is printed on each of its blanks. */
const printed = (
  flat: sent.FlatView,
  arts: sent.ArtView[],
  behind: sent.ArtView[] = [],
): FlatView => ({
  ...flat,
  parts: flat.parts.map((part, at) => ({
    ...part,
    art: arts[at] ?? null,
    behind: behind[at] ?? null,
  })),
});

/** A piece as it is seen from behind, where it is printed there. */
export const behind = (piece: PieceView): PieceView =>
  piece.back ? { ...piece, flat: piece.back } : piece;

export const wholePreview = ({ pieces, sheet, ...rest }: sent.Preview): Preview => ({
  ...rest,
  pieces: pieces.map(pieceOf),
  sheet: view(sheet),
  sheetKey: sheet.key,
});

export const wholeJob = (job: sent.OpenJob): OpenJob => ({
  ...job,
  preview: job.preview && wholePreview(job.preview),
});
