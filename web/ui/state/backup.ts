import { readPiece, writePiece } from '@maypole/core/piece/read';
import type { Piece } from '@maypole/core/piece/piece';
import { dropText, keepText, keptJson } from './browser-store';

/** Work that has not reached the server, kept in the browser until it has. */
export interface Backup {
  readonly source: string;
  /** The revision it was based on. */
  readonly basedOn: number;
}

const keyOf = (id: string) => `maypole-unsaved-${id}`;

/** Keeps the work on a piece; false where the browser has no store, or no room in it. */
export function keepBackup(id: string, piece: Piece, basedOn: number): boolean {
  return keepText(keyOf(id), JSON.stringify({ source: writePiece(piece), basedOn } satisfies Backup));
}

export function dropBackup(id: string): void {
  dropText(keyOf(id));
}

/** What was kept of a piece: the work, or what is wrong with it where it cannot be read. */
export function backupOf(
  id: string,
): (Backup & ({ readonly piece: Piece } | { readonly piece: null; readonly trouble: string })) | null {
  const backup = keptJson(keyOf(id)) as Backup | null;
  if (typeof backup?.source !== 'string') return null;
  const read = readPiece(backup.source);
  return read.ok ? { ...backup, piece: read.piece } : { ...backup, piece: null, trouble: read.message };
}
