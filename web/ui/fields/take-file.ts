import type { AssetParam } from '@maypole/core/declare/params';
import { SHAPE_FILES } from '@maypole/core/files/import-shape';
import { writePgm } from '@maypole/core/files/pgm';
import { readLightFile } from '@/engine/trace/light-file';

/** A file converted to the form in which it is kept. */
interface Taken {
  readonly name: string;
  readonly bytes: Blob;
  /** What was corrected, in words. */
  readonly mended?: string;
}

/** Converts a user's file in the browser, so that the server has little to do. */
interface Taker {
  /** The `accept` attribute of the file chooser. */
  readonly accept: string;
  take(file: File): Promise<Taken>;
}

/** Pictures are reduced to this side in pixels; no surface shows more. */
const MOST_SIDE = 2048;

export const takers: Readonly<Record<AssetParam['accepts'], Taker>> = {
  shape: { accept: SHAPE_FILES.join(','), take: async (file) => ({ name: file.name, bytes: file }) },
  picture: {
    accept: 'image/*',
    take: async (file) => ({ name: renamed(file, '.pgm'), bytes: greyscale(await drawn(file, '#808080')) }),
  },
  image: {
    accept: 'image/png,image/jpeg,image/webp',
    take: async (file) => ({ name: renamed(file, '.png'), bytes: await (await drawn(file)).convertToBlob() }),
  },
  light: {
    accept: '.hdr,.exr',
    async take(file) {
      const { bytes, mended } = await readLightFile(file);
      return { name: renamed(file, '.hdr'), bytes, mended };
    },
  },
};

const renamed = (file: File, ending: string) => `${file.name.replace(/\.[^.]*$/, '')}${ending}`;

/** A picture on a canvas no larger than useful; over a colour, if one is given. */
async function drawn(file: File, before?: string): Promise<OffscreenCanvas> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error('this is not a picture the browser can read; use PNG, JPEG or WebP.');
  });
  const scale = Math.min(1, MOST_SIDE / Math.max(picture.width, picture.height));
  const [width, height] = [picture.width, picture.height].map((x) => Math.max(1, Math.round(x * scale)));
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  if (before) {
    context.fillStyle = before;
    context.fillRect(0, 0, width, height);
  }
  context.drawImage(picture, 0, 0, width, height);
  picture.close();
  return canvas;
}

/** The luma of a picture (Rec. 709 weights). */
function greyscale(canvas: OffscreenCanvas): Blob {
  const { width, height } = canvas;
  const { data } = canvas.getContext('2d', { willReadFrequently: true })!.getImageData(0, 0, width, height);
  const values = new Float32Array(width * height);
  for (let i = 0; i < values.length; i++)
    values[i] = (0.2126 * data[4 * i] + 0.7152 * data[4 * i + 1] + 0.0722 * data[4 * i + 2]) / 255;
  return new Blob([writePgm(width, height, values) as Uint8Array<ArrayBuffer>]);
}
