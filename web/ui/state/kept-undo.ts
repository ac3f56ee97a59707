import type { Piece } from '@maypole/core/piece/piece';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { keepText, keptJson } from './browser-store';
import { useEditor } from './store';

/** Most characters stored: a tab has room for about five million. */
const MOST = 2_000_000;

interface Kept {
  /** The document that the edits led to: they are useless with any other. */
  readonly now: string;
  /** Documents before each edit, latest first. */
  readonly past: readonly { readonly source: string; readonly label: string }[];
}

const keyOf = (id: string) => `maypole-undo-${id}`;

/** Stores the edits of the open piece for this tab, latest first, as many as there is room for. */
export function keepUndo(): void {
  const { id, piece, history } = useEditor.getState();
  if (!id) return;
  const now = writePiece(piece);
  const past: { source: string; label: string }[] = [];
  let room = MOST - now.length;
  for (const { piece: before, label } of [...history.past].reverse()) {
    const source = writePiece(before);
    room -= source.length + label.length;
    if (room < 0) break;
    past.push({ source, label });
  }
  keepText(keyOf(id), JSON.stringify({ now, past } satisfies Kept), 'session');
}

/** Edits stored before the page was reloaded; none if the piece differs by now. */
export function keptUndo(id: string, piece: Piece): { piece: Piece; label: string; at: number }[] {
  const kept = keptJson(keyOf(id), null, 'session') as Partial<Kept> | null;
  if (!kept || kept.now !== writePiece(piece) || !Array.isArray(kept.past)) return [];
  const out: { piece: Piece; label: string; at: number }[] = [];
  for (const { source, label } of kept.past as Kept['past']) {
    const read = typeof source === 'string' ? readPiece(source) : null;
    // Edits before an unreadable one are out of reach as well.
    if (!read?.ok || typeof label !== 'string') break;
    out.unshift({ piece: read.piece, label, at: 0 });
  }
  return out;
}

/** Stores edits when the page is hidden: the last event that reliably fires. */
export function startKeepingUndo(): () => void {
  const onHide = () => document.visibilityState === 'hidden' && keepUndo();
  window.addEventListener('pagehide', keepUndo);
  document.addEventListener('visibilitychange', onHide);
  return () => {
    keepUndo();
    window.removeEventListener('pagehide', keepUndo);
    document.removeEventListener('visibilitychange', onHide);
  };
}
