import { readPiece, writePiece } from '@maypole/core/piece/read';
import type { Piece } from '@maypole/core/piece/piece';
import type { Line } from '@/contract/line';
import { dropText, keepText, keptJson, keptNames } from './browser-store';
import { lineOf } from './line';

/** Work that has not reached the server, kept in the browser until then. */
export interface Backup {
  readonly source: string;
  /** The revision it is based on. */
  readonly basedOn: number;
  /** Its page and version number; null in backups of an earlier Maypole. */
  readonly line: Line | null;
}

/** A backup with its storage key, and the work, or why it cannot be read. */
export type Kept = Backup & { readonly key: string } & (
    { readonly piece: Piece } | { readonly piece: null; readonly trouble: string }
  );

const prefixOf = (id: string) => `maypole-unsaved-${id}`;
/** Each page has its own: two pages with one piece open do not overwrite each other's. */
const keyOf = (id: string, line: Line) => `${prefixOf(id)}-${line.client}`;

/** Stores this page's work on a piece; false if the browser cannot. */
export function keepBackup(id: string, piece: Piece, basedOn: number): boolean {
  const source = writePiece(piece);
  const line = lineOf(id, source, basedOn);
  return keepText(keyOf(id, line), JSON.stringify({ source, basedOn, line } satisfies Backup));
}

/** Removes this page's backup of a piece. */
export function dropBackup(id: string, line: Line): void {
  dropText(keyOf(id, line));
}

/** Backups of a piece by any page; those of one page in order. */
export function backupsOf(id: string): Kept[] {
  return keptNames(prefixOf(id)).flatMap((key): Kept[] => {
    const backup = keptJson(key) as Backup | null;
    if (typeof backup?.source !== 'string') return [];
    const line = backup.line ?? null;
    const read = readPiece(backup.source);
    return [{ ...backup, line, key, ...(read.ok ? { piece: read.piece } : { piece: null, trouble: read.message }) }];
  });
}

/** Removes a backup unless it has changed. */
export function dropKept(kept: Kept): void {
  if ((keptJson(kept.key) as Backup | null)?.source === kept.source) dropText(kept.key);
}
