import type { Piece } from '@maypole/core/piece/piece';
import { Kept } from './kept';
import { ContactSheetRenderer, type Strip } from './contact-sheet';

const drawers = new Kept(() => ContactSheetRenderer.create(), 8000);
const known = new Map<string, Strip>();

/**
 * The small loop of an example, drawn once per page: one after the other, skipping those nobody looks at. `onStrip` is
 * called as soon as there is something to show; the strip fills in after that.
 */
export async function drawExample(
  key: string,
  make: () => Piece,
  wanted: () => boolean,
  onStrip: (strip: Strip) => void,
): Promise<void> {
  const there = known.get(key);
  if (there?.there.size === there?.frames && there) return onStrip(there);
  return drawers.use(async (drawer) => {
    if (!wanted()) return;
    const piece = make();
    const looked = await drawer.look(piece);
    if (looked === 'heavy' || looked === 'size') throw new Error('This example takes too much work to be drawn here.');
    known.set(key, looked.strip);
    onStrip(looked.strip);
    await drawer.rest(piece, looked.strip, wanted);
  });
}
