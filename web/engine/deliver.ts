import { evaluateValues } from '@maypole/core/evaluate/values';
import { outputs } from '@maypole/core/output/index';
import { baseName, framesWanted, pictureParams, type PictureSettings } from '@maypole/core/output/kind';
import type { Item, Piece } from '@maypole/core/piece/piece';
import { Offscreen } from './offscreen';
import { DeliveryProblem } from './outputs/encoder';
import { encoders } from './outputs/index';

export interface DeliveryProgress {
  readonly done: number;
  readonly total: number;
  /** Seconds, once it can be told. */
  readonly left: number | null;
}

export interface Delivery {
  readonly name: string;
  readonly blob: Blob;
}

/** Settings of an output as plain values. */
export function settingsOf(output: Item): PictureSettings {
  return evaluateValues(pictureParams, output.values, { frame: 0, frames: 1 });
}

/**
 * Makes a file of a piece as it is now. Frame N is frame 0 and is not in it. A frame that cannot be
 * made whole ends the delivery with a sentence that names it.
 *
 * @param signal ends the work; the promise is then rejected with the signal's reason
 */
export async function deliver(
  piece: Piece,
  output: Item,
  onProgress: (p: DeliveryProgress) => void,
  signal: AbortSignal,
): Promise<Delivery> {
  const kind = outputs.get(output.kind);
  const { detail, look, subframes, ...range } = settingsOf(output);
  const { format, loop } = piece;
  const refused = kind.refusal(format);
  if (refused) throw new DeliveryProblem(refused);
  const frames = framesWanted(range, loop.frames);
  const base = baseName(piece.name, format);
  const encoder = await encoders[output.kind]();
  const offscreen = await Offscreen.create(format.width, format.height);
  try {
    offscreen.setPiece(piece, detail, look, kind.alpha ?? false);
    const encoding = await encoder.open({ base, title: piece.name, loop, frames, ...format, canvas: offscreen.canvas });
    const start = performance.now();
    try {
      for (const [index, frame] of frames.entries()) {
        signal.throwIfAborted();
        await offscreen.draw(frame, subframes);
        await encoding.add(frame, index);
        const done = index + 1;
        const spent = (performance.now() - start) / 1000;
        onProgress({ done, total: frames.length, left: done < 2 ? null : (spent / done) * (frames.length - done) });
      }
      signal.throwIfAborted();
      return { name: `${base}.${kind.ending}`, blob: await encoding.finish() };
    } catch (error) {
      await encoding.cancel();
      throw error;
    }
  } finally {
    offscreen.dispose();
  }
}
