import type { Piece } from '@maypole/core/piece/piece';
import type { KeptSheet } from '@maypole/core/explore/sheet-settings';
import { readPiece } from '@maypole/core/piece/read';
import { create } from 'zustand';
import type { RevisionSummary } from '@/contract/pieces';
import { keepTake, listRevisions, loadRevision, markRevision } from '../api';
import { tell, tellTrouble } from '../parts/toasts';
import { useEditor } from '../state/store';
import { closeSheet, openKeptSheet } from './sheet-store';

interface PastState {
  /** The piece that it belongs to. */
  readonly id: string;
  /** Saves and takes, newest first; null until loaded. */
  readonly list: readonly RevisionSummary[] | null;
  /** Bytes that all of them take. */
  readonly bytes: number;
  /** Loaded documents by number; a sentence for one that cannot be read. */
  readonly pieces: ReadonlyMap<number, Piece | string>;
  readonly picked: number | null;
}

const NOTHING: PastState = { id: '', list: null, bytes: 0, pieces: new Map(), picked: null };

export const usePast = create<PastState>()(() => NOTHING);

const attempt = async (work: () => Promise<void>) => {
  try {
    await work();
  } catch (error) {
    tellTrouble(error instanceof Error ? error.message : 'That did not work.');
  }
};

/** Loads the list; documents of the same piece and the viewed save stay. */
export const openPast = (id: string) =>
  attempt(async () => {
    if (usePast.getState().id !== id) usePast.setState({ ...NOTHING, id });
    const { revisions: list, bytes } = await listRevisions(id);
    if (usePast.getState().id === id) usePast.setState({ list, bytes });
  });

const asked = new Set<string>();

/** Loads the document of a save, once. */
export function wantRevision(id: string, number: number): void {
  const key = `${id}/${number}`;
  if (usePast.getState().pieces.has(number) || asked.has(key)) return;
  asked.add(key);
  void attempt(async () => {
    const read = readPiece((await loadRevision(id, number)).source);
    if (usePast.getState().id !== id) return;
    usePast.setState((s) => ({ pieces: new Map(s.pieces).set(number, read.ok ? read.piece : read.message) }));
  }).finally(() => asked.delete(key));
}

export const nameRevision = (id: string, number: number, mark: string | null) =>
  attempt(async () => {
    await markRevision(id, number, mark);
    usePast.setState((s) => ({ list: s.list?.map((r) => (r.number === number ? { ...r, mark } : r)) ?? null }));
  });

/** Opens the sheet of variations stored with a version. */
export const openSheetOf = (id: string, number: number) =>
  attempt(async () => {
    const { source, sheet } = await loadRevision(id, number);
    const read = readPiece(source);
    const trouble = !read.ok ? read.message : !sheet ? 'No sheet is kept here.' : openKeptSheet(read.piece, sheet);
    if (trouble) tellTrouble(trouble);
  });

/** Stores a version beside the piece, and a sheet of its variations with it; true if it worked. */
export async function keepAs(id: string, source: string, name: string, sheet?: KeptSheet): Promise<boolean> {
  let kept = false;
  await attempt(async () => {
    await keepTake(id, source, name, sheet);
    kept = true;
    await openPast(id);
  });
  return kept;
}

/** Says that a take was kept, and leads to it. */
export function tellKept(name: string): void {
  const show = () => {
    closeSheet();
    useEditor.setState({ drawer: 'history' });
  };
  tell(`“${name}” is kept as a take.`, { label: 'Show', onClick: show });
}
