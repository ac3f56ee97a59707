import type { SceneAt } from '../evaluate/picture-at';
import { backdropShown } from '../scene/backdrop-shown';
import { viewTransform } from '../scene/view-transform';
import { SUMS } from './tracer';

/** A number below 1 for a pixel, by which steps of 8 bits are not seen as bands (J. Jimenez, SIGGRAPH 2014). */
function dither(x: number, y: number): number {
  const f = 0.06711056 * x + 0.00583715 * y;
  const g = 52.9829189 * (f - Math.floor(f));
  return g - Math.floor(g) - 0.5;
}

/**
 * A traced picture as it is shown: light times exposure through the view transform, over the backdrop.
 *
 * @param sums see Tracer.samples
 * @param clear the backdrop is left out, and the picture see-through where nothing covers it
 * @returns red, green, blue and how much is covered, 0…255, rows from the top; not premultiplied
 */
export function developed(
  sums: Float64Array,
  samples: number,
  width: number,
  height: number,
  { camera, backdrop }: Pick<SceneAt, 'camera' | 'backdrop'>,
  clear = false,
): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const covered = backdrop.type === 'round' && !clear ? 1 : sums[SUMS * i + 3] / samples;
      const by = covered > 0 ? camera.exposure / samples / covered : 0;
      const shown = viewTransform(sums[SUMS * i] * by, sums[SUMS * i + 1] * by, sums[SUMS * i + 2] * by);
      const behind =
        clear || covered === 1 ? shown : backdropShown(backdrop, (x + 0.5) / width, (y + 0.5) / height, width / height);
      const noise = covered > 0 || backdrop.type === 'gradient' ? dither(x, y) : 0;
      for (let k = 0; k < 3; k++) out[4 * i + k] = 255 * (behind[k] + (shown[k] - behind[k]) * covered) + noise;
      out[4 * i + 3] = clear ? 255 * covered : 255;
    }
  return out;
}

/** The light of a traced picture, before exposure: red, green, blue and how much is covered, premultiplied. */
export function lightIn(sums: Float64Array, samples: number): Float32Array {
  const pixels = sums.length / SUMS;
  return Float32Array.from({ length: 4 * pixels }, (_, i) => sums[SUMS * (i >> 2) + (i & 3)] / samples);
}
