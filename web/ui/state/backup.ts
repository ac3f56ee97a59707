import { readPiece, writePiece } from '@maypole/core/piece/read';
import type { Piece } from '@maypole/core/piece/piece';
import type { Line } from '@/contract/line';
import { dropText, keepText, keptJson, keptNames } from './browser-store';
import { lineOf } from './line';

/** Work that has not reached the server, kept in the browser until it has. */
export interface Backup {
  readonly source: string;
  /** The revision it was based on. */
  readonly basedOn: number;
  /** The page it is of, and the how manieth of its versions; null for what an earlier Maypole has kept. */
  readonly line: Line | null;
}

/** A backup with the name that it is kept under, and the work, or what is wrong with it where it cannot be read. */
export type Kept = Backup & { readonly key: string } & (
    { readonly piece: Piece } | { readonly piece: null; readonly trouble: string }
  );

const prefixOf = (id: string) => `maypole-unsaved-${id}`;
/** Each page keeps its own: two that have one piece open do not write over each other's. */
const keyOf = (id: string, line: Line) => `${prefixOf(id)}-${line.client}`;

/** Keeps the work of this page on a piece; false where the browser has no store, or no room in it. */
export function keepBackup(id: string, piece: Piece, basedOn: number): boolean {
  const source = writePiece(piece);
  const line = lineOf(id, source, basedOn);
  return keepText(keyOf(id, line), JSON.stringify({ source, basedOn, line } satisfies Backup));
}

/** Lets the work of this page on a piece go. */
export function dropBackup(id: string, line: Line): void {
  dropText(keyOf(id, line));
}

/** What was kept of a piece, by whichever page, the oldest of a page never behind a newer one. */
export function backupsOf(id: string): Kept[] {
  return keptNames(prefixOf(id)).flatMap((key): Kept[] => {
    const backup = keptJson(key) as Backup | null;
    if (typeof backup?.source !== 'string') return [];
    const line = backup.line ?? null;
    const read = readPiece(backup.source);
    return [{ ...backup, line, key, ...(read.ok ? { piece: read.piece } : { piece: null, trouble: read.message }) }];
  });
}

/** Lets what was kept go, unless it is another by now. */
export function dropKept(kept: Kept): void {
  if ((keptJson(kept.key) as Backup | null)?.source === kept.source) dropText(kept.key);
}
