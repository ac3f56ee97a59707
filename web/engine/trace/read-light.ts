import { checkSize, readRadiance } from '@maypole/core/files/radiance';
import { tidyLight } from '@maypole/core/assets/light';
import { FileTrouble } from '@maypole/core/assets/trouble';
import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';

const EXR = [0x76, 0x2f, 0x31, 0x01];

/** Reads an environment map of any size in either format and converts it to its stored form. @throws FileTrouble */
export function readLight(bytes: Uint8Array): ReturnType<typeof tidyLight> {
  if (bytes.length === 0) throw new FileTrouble('this file is empty.');
  if (!EXR.every((b, i) => bytes[i] === b)) {
    if (bytes[0] !== 0x23) throw new FileTrouble('this is no picture of light; use Radiance (.hdr) or OpenEXR (.exr).');
    const { width, height, values } = readRadiance(bytes);
    return tidyLight(width, height, values, 3);
  }
  const size = exrSize(bytes);
  if (size) checkSize(...size);
  try {
    const loader = new EXRLoader();
    loader.setDataType(FloatType);
    const { data, width, height } = loader.parse(bytes.slice().buffer) as object as ExrPicture;
    // One channel, or colours with alpha.
    const grey = data.length === width * height;
    const channels = grey ? 3 : 4;
    return tidyLight(width, height, upright(grey ? greyAsColours(data) : data, width, height, channels), channels);
  } catch (error) {
    if (error instanceof FileTrouble) throw error;
    const words = error instanceof Error ? error.message.replace(/^THREE\.EXRLoader:\s*/, '') : '';
    throw new FileTrouble(
      `this OpenEXR picture cannot be read${words ? ` (${words})` : ''}; save it with ZIP and half floats.`,
    );
  }
}

interface ExrPicture {
  readonly data: Float32Array;
  readonly width: number;
  readonly height: number;
}

function greyAsColours(grey: Float32Array): Float32Array {
  const out = new Float32Array(3 * grey.length);
  grey.forEach((x, i) => out.fill(x, 3 * i, 3 * i + 3));
  return out;
}

/** The loader gives rows from the bottom. */
function upright(values: Float32Array, width: number, height: number, channels: number): Float32Array {
  const out = new Float32Array(values.length);
  const row = channels * width;
  for (let y = 0; y < height; y++) out.set(values.subarray(y * row, (y + 1) * row), (height - 1 - y) * row);
  return out;
}

/** Width and height in an OpenEXR header, before anything is decoded; null if missing. */
export function exrSize(bytes: Uint8Array): [number, number] | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const text = (at: number): string => {
    let end = at;
    while (end < bytes.length && bytes[end] !== 0 && end - at < 256) end++;
    return String.fromCharCode(...bytes.subarray(at, end));
  };
  for (let at = 8; at + 8 < bytes.length;) {
    const name = text(at);
    if (name === '') return null;
    at += name.length + 1;
    const type = text(at);
    at += type.length + 1;
    if (at + 4 > bytes.length) return null;
    const size = view.getInt32(at, true);
    at += 4;
    if (name === 'dataWindow' && at + 16 <= bytes.length) {
      const [x0, y0, x1, y1] = [0, 4, 8, 12].map((o) => view.getInt32(at + o, true));
      return [x1 - x0 + 1, y1 - y0 + 1];
    }
    if (size < 0) return null;
    at += size;
  }
  return null;
}
