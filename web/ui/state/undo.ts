import type { Piece } from '@maypole/core/piece/piece';

/** Undo and redo stacks. Pieces share all unchanged parts, so each entry is small. */
export interface History {
  readonly past: readonly Entry[];
  readonly future: readonly Entry[];
}

interface Entry {
  /** The piece before (past) or after (future) the edit. */
  readonly piece: Piece;
  readonly label: string;
  /** Edits with the same key in quick succession are merged. */
  readonly merge?: string;
  readonly at: number;
}

export const NO_HISTORY: History = { past: [], future: [] };
const LIMIT = 400;
const MERGE_MS = 900;
const ONE_DRAG = /drag-\d+$/;

let drags = 0;
/** A key for the edits of one drag, to end a merge key with: they are one edit, however long it takes. */
export const newDrag = (): string => `drag-${++drags}`;

/** The history after an edit that replaced `before`. */
export function record(
  history: History,
  before: Piece,
  label: string,
  merge: string | undefined,
  now: number,
): History {
  const last = history.past.at(-1);
  if (merge !== undefined && last?.merge === merge && (ONE_DRAG.test(merge) || now - last.at < MERGE_MS))
    return { past: [...history.past.slice(0, -1), { ...last, at: now }], future: [] };
  return { past: [...history.past, { piece: before, label, merge, at: now }].slice(-LIMIT), future: [] };
}

/** Undoes one edit: the piece to show and the new history; null if there is none. */
export function undo(history: History, current: Piece): { piece: Piece; history: History; label: string } | null {
  const last = history.past.at(-1);
  if (!last) return null;
  return {
    piece: last.piece,
    label: last.label,
    history: {
      past: history.past.slice(0, -1),
      future: [{ piece: current, label: last.label, at: 0 }, ...history.future],
    },
  };
}

/** Redoes one edit. */
export function redo(history: History, current: Piece): { piece: Piece; history: History; label: string } | null {
  const [next, ...rest] = history.future;
  if (!next) return null;
  return {
    piece: next.piece,
    label: next.label,
    history: { past: [...history.past, { piece: current, label: next.label, at: 0 }], future: rest },
  };
}
