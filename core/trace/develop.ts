import type { SceneAt } from '../evaluate/picture-at';
import { backdropShown } from '../scene/backdrop-shown';
import { viewTransform } from '../scene/view-transform';
import { SUMS, type Tile } from './tracer';

/** A number below 1 for a pixel, by which steps of 8 bits are not seen as bands (J. Jimenez, SIGGRAPH 2014). */
function dither(x: number, y: number): number {
  const f = 0.06711056 * x + 0.00583715 * y;
  const g = 52.9829189 * (f - Math.floor(f));
  return g - Math.floor(g) - 0.5;
}

/** Where a tile is in what picture, and what that shows. */
export interface Developing {
  readonly tile: Tile;
  readonly width: number;
  readonly height: number;
  /** Share of width and height that the output frame fills; absent, all. */
  readonly frame?: { readonly width: number; readonly height: number };
  readonly scene: Pick<SceneAt, 'camera' | 'backdrop'>;
  /** The backdrop is left out, and the picture see-through where nothing covers it. */
  readonly clear?: boolean;
}

/**
 * A traced tile as it is shown: light times exposure through the view transform, over the backdrop.
 *
 * @param sums see Tracer.samples
 * @returns red, green, blue and how much is covered, 0…255, rows from the top; not premultiplied
 */
export function developed(
  sums: Float64Array,
  samples: number,
  { tile, width, height, frame = { width: 1, height: 1 }, scene: { camera, backdrop }, clear = false }: Developing,
): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(4 * tile.width * tile.height);
  const aspect = (width * frame.width) / (height * frame.height);
  for (let y = 0; y < tile.height; y++)
    for (let x = 0; x < tile.width; x++) {
      const i = y * tile.width + x;
      const [px, py] = [tile.x + x, tile.y + y];
      const covered = backdrop.type === 'round' && !clear ? 1 : sums[SUMS * i + 3] / samples;
      const by = covered > 0 ? camera.exposure / samples / covered : 0;
      const shown = viewTransform(sums[SUMS * i] * by, sums[SUMS * i + 1] * by, sums[SUMS * i + 2] * by);
      const [u, v] = [((px + 0.5) / width - 0.5) / frame.width + 0.5, ((py + 0.5) / height - 0.5) / frame.height + 0.5];
      const behind = clear || covered === 1 ? shown : backdropShown(backdrop, u, v, aspect);
      const noise = covered > 0 || backdrop.type === 'gradient' ? dither(px, py) : 0;
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
