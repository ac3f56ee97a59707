import type { Piece } from '@maypole/core/piece/piece';
import { readPiece } from '@maypole/core/piece/read';
import { create } from 'zustand';
import { listRevisions, loadPiece, loadRevision } from '../api';
import { tell, tellTrouble } from '../parts/toasts';
import { useEditor } from '../state/store';

/** What can be compared: the present piece, one of its saves or takes, or another piece. */
export type Source = 'now' | `save:${number}` | `piece:${string}`;

export interface Side {
  readonly source: Source;
  readonly piece: Piece;
}

interface CompareState {
  readonly open: boolean;
  readonly sides: readonly [Side, Side] | null;
}

export const useCompare = create<CompareState>()(() => ({ open: false, sides: null }));

async function sideOf(source: Source): Promise<Side> {
  const { id, piece } = useEditor.getState();
  if (source === 'now') return { source, piece };
  const stored = source.startsWith('save:')
    ? await loadRevision(id, Number(source.slice(5)))
    : await loadPiece(source.slice(6));
  const read = readPiece(stored.source);
  if (!read.ok) throw new Error(read.message);
  return { source, piece: read.piece };
}

/** Compares the present piece with something else. */
export async function openCompare(second: Source, first: Source = 'now'): Promise<void> {
  try {
    const sides = [await sideOf(first), await sideOf(second)] as const;
    useCompare.setState({ open: true, sides });
  } catch (error) {
    tellTrouble(error instanceof Error ? error.message : 'It could not be opened for comparing.');
  }
}

/** Puts something else on one of the two sides. */
export async function putOnSide(at: 0 | 1, source: Source): Promise<void> {
  const { sides } = useCompare.getState();
  if (!sides) return;
  await (at === 0 ? openCompare(sides[1].source, source) : openCompare(source, sides[0].source));
}

export function closeCompare(): void {
  useCompare.setState({ open: false, sides: null });
}

/** Compares with the newest save or take that differs from the present piece. */
export async function compareWithEarlier(): Promise<void> {
  try {
    const { id, revision } = useEditor.getState();
    const { revisions } = await listRevisions(id);
    const other = revisions.find((r) => r.mark && r.number !== revision) ?? revisions.find((r) => r.number < revision);
    if (other) await openCompare(`save:${other.number}`);
    else tell('There is nothing to compare with yet: this is the first save.');
  } catch (error) {
    tellTrouble(error instanceof Error ? error.message : 'The saves could not be fetched.');
  }
}
