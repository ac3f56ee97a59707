import type { Piece } from '@maypole/core/piece/piece';
import { SheetDrawer, type Strip } from './sheet-drawer';

let queue: Promise<unknown> = Promise.resolve();
let shared: Promise<SheetDrawer> | null = null;
let idle: ReturnType<typeof setTimeout> | undefined;
const IDLE_MS = 8000;
const known = new Map<string, Strip>();

/**
 * The small loop of an example, drawn once for a page: one after the other, those nobody looks at any more left out.
 * `onStrip` is told as soon as there is something to show; the strip fills in after that.
 */
export async function drawExample(
  key: string,
  make: () => Piece,
  wanted: () => boolean,
  onStrip: (strip: Strip) => void,
): Promise<void> {
  const there = known.get(key);
  if (there?.there.size === there?.frames && there) return onStrip(there);
  const mine = queue.then(async () => {
    if (!wanted()) return;
    clearTimeout(idle);
    shared ??= SheetDrawer.create(1);
    const drawer = await shared;
    const piece = make();
    const looked = await drawer.look(piece);
    if (looked === 'heavy' || looked === 'size') throw new Error('This example takes too much work to be drawn here.');
    known.set(key, looked.strip);
    onStrip(looked.strip);
    await drawer.rest(piece, looked.strip, wanted);
  });
  queue = mine.then(letGoSoon, letGoSoon);
  return mine;
}

/** Gives workers and the graphics context back once nothing has been drawn for a while. */
function letGoSoon(): void {
  clearTimeout(idle);
  idle = setTimeout(() => {
    void shared?.then(
      (d) => d.dispose(),
      () => undefined,
    );
    shared = null;
  }, IDLE_MS);
}
