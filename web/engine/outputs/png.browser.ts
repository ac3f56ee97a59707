import { frameName } from '@maypole/core/output/kind';
import { strToU8, Zip, ZipPassThrough } from 'fflate';
import { DeliveryProblem, type Encoder } from './encoder';

/** PNG pictures in a zip; they are compressed already and are only stored. */
export const png: Encoder = {
  async open({ base, loop, frames, canvas }) {
    const parts: BlobPart[] = [];
    let failure: Error | null = null;
    const zip = new Zip((error, chunk) => {
      if (error) failure = error;
      else parts.push(chunk as Uint8Array<ArrayBuffer>);
    });
    const put = (name: string, bytes: Uint8Array) => {
      const entry = new ZipPassThrough(name);
      zip.add(entry);
      entry.push(bytes, true);
      if (failure) throw failure;
    };
    const nameOf = (frame: number) => frameName(base, frame, loop.frames);
    return {
      async add(frame) {
        const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
        if (!blob)
          throw new DeliveryProblem(
            `Frame ${frame} could not be turned into a PNG of ${canvas.width} × ${canvas.height} pixels; try a smaller size.`,
          );
        put(nameOf(frame), new Uint8Array(await blob.arrayBuffer()));
      },
      async finish() {
        const whole = frames.length === loop.frames;
        put(
          'frames.txt',
          strToU8(
            `${frames.length} frames, ${nameOf(frames[0])} to ${nameOf(frames[frames.length - 1])}.\n${whole ? 'Play them in a circle: after the last comes the first.' : `They are a part of a loop of ${loop.frames} frames.`}\n`,
          ),
        );
        zip.end();
        return new Blob(parts, { type: 'application/zip' });
      },
      async cancel() {
        zip.terminate();
      },
    };
  },
};
