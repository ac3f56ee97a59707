import { readPiece, writePiece } from '@maypole/core/piece/read';
import type { Piece } from '@maypole/core/piece/piece';

/** Work that has not reached the server, kept in the browser until it has. */
export interface Backup {
  readonly source: string;
  /** The revision it was based on. */
  readonly basedOn: number;
}

const keyOf = (id: string) => `maypole-unsaved-${id}`;

/** Keeps the work on a piece. Where the browser has no store, or no room in it, the server is tried again anyway. */
export function keepBackup(id: string, piece: Piece, basedOn: number): void {
  try {
    localStorage.setItem(keyOf(id), JSON.stringify({ source: writePiece(piece), basedOn } satisfies Backup));
  } catch {
    // Nothing can be kept here.
  }
}

export function dropBackup(id: string): void {
  try {
    localStorage.removeItem(keyOf(id));
  } catch {
    // Nothing was kept here.
  }
}

/** What was kept of a piece: the work, or what is wrong with it where it cannot be read. */
export function backupOf(
  id: string,
): (Backup & ({ readonly piece: Piece } | { readonly piece: null; readonly trouble: string })) | null {
  try {
    const text = localStorage.getItem(keyOf(id));
    if (!text) return null;
    const backup = JSON.parse(text) as Backup;
    if (typeof backup?.source !== 'string') return null;
    const read = readPiece(backup.source);
    return read.ok ? { ...backup, piece: read.piece } : { ...backup, piece: null, trouble: read.message };
  } catch {
    return null;
  }
}
