import { LIMITS } from '@maypole/core/declare/limits';
import { newPiece, type Piece } from '@maypole/core/piece/piece';
import { framesForSeconds, loopSeconds, MAX_FPS, MIN_FPS } from '@maypole/core/time/loop';
import { keepText, keptJson } from './browser-store';
import { useEditor } from './store';

const KEY = 'maypole-last-format';

/** Remembers, in this browser, the format and rate that were chosen last. Returns how to stop. */
export function noteFormats(): () => void {
  return useEditor.subscribe(({ id, piece }, before) => {
    if (id !== before.id || !piece.format) return;
    if (piece.format === before.piece.format && piece.loop.fps === before.piece.loop.fps) return;
    keepText(KEY, JSON.stringify({ ...piece.format, fps: piece.loop.fps }));
  });
}

const isSide = (x: unknown): x is number =>
  Number.isInteger(x) && (x as number) >= LIMITS.side.least && (x as number) <= LIMITS.side.most;

/** An empty piece with the format and rate that were chosen last, as long as any new one. */
export function emptyPiece(name: string): Piece {
  const plain = newPiece(name);
  const { width, height, fps } = (keptJson(KEY, null) ?? {}) as Record<string, unknown>;
  if (!isSide(width) || !isSide(height)) return plain;
  if (typeof fps !== 'number' || !(fps >= MIN_FPS && fps <= MAX_FPS)) return { ...plain, format: { width, height } };
  const frames = framesForSeconds(loopSeconds(plain.loop), fps);
  return { ...plain, format: { width, height }, loop: { frames, fps } };
}
