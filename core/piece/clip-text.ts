import type { Piece } from './piece';
import { readPiece, writePiece } from './read';

/** Longest text that is examined. */
const MOST_TEXT = 8 * 1024 * 1024;

/** What can be copied as text besides ribbons: steps, and the motion of a value. */
export type ClipKind = 'steps' | 'motion';

/** A look as text that can be pasted elsewhere, or mailed. */
export function clipText(kind: ClipKind, look: Piece): string {
  return JSON.stringify({ maypole: kind, piece: JSON.parse(writePiece(look)) as unknown });
}

export type Clip =
  | { readonly ok: true; readonly kind: ClipKind; readonly look: Piece }
  /** `none`: it is nothing of that sort, so that nobody meant to paste it. */
  | { readonly ok: false; readonly none: boolean; readonly message: string };

/** Reads a text that clipText wrote, in this version or an older one. */
export function readClip(text: string): Clip {
  const none: Clip = { ok: false, none: true, message: 'What was copied holds no steps and no motion.' };
  const kind = /^\s*\{\s*"maypole"\s*:\s*"(steps|motion)"/.exec(text.slice(0, 200))?.[1] as ClipKind | undefined;
  if (!kind || text.length > MOST_TEXT) return none;
  try {
    const { piece } = JSON.parse(text) as { piece?: unknown };
    const read = readPiece(JSON.stringify(piece ?? null));
    return read.ok
      ? { ok: true, kind, look: read.piece }
      : { ok: false, none: false, message: `What was copied cannot be used: ${read.message}` };
  } catch {
    return { ok: false, none: false, message: 'What was copied is cut off or broken; copy it again, from end to end.' };
  }
}
