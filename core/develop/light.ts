import { COUNT, SUMS, type Tile } from '../trace/paths/tile-result';

/** A picture as radiance before exposure, rows from the top. */
export interface LightPicture {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue and coverage; premultiplied. */
  readonly values: Float32Array;
  /** Red, green and blue of light that covers nothing: of lit air and additive surfaces. */
  readonly added: Float32Array;
}

/** Offset of added light in the sums of a pixel. */
const ADDED = 6;

export function emptyLight(width: number, height: number): LightPicture {
  const pixels = width * height;
  return { width, height, values: new Float32Array(4 * pixels), added: new Float32Array(3 * pixels) };
}

/** Puts the mean of a tile's samples in its place; pixels may differ in their number of samples. */
export function putTile(to: LightPicture, { x, y, width, height }: Tile, sums: Float64Array): void {
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const from = SUMS * (j * width + i);
      const pixel = (y + j) * to.width + x + i;
      const share = sums[from + COUNT] > 0 ? 1 / sums[from + COUNT] : 0;
      for (let k = 0; k < 4; k++) to.values[4 * pixel + k] = sums[from + k] * share;
      for (let k = 0; k < 3; k++) to.added[3 * pixel + k] = sums[from + ADDED + k] * share;
    }
}

/**
 * Fills pixels from a smaller version of the same picture, bilinearly.
 *
 * @param there pixels that have samples of their own, and stay
 */
export function fillFrom(small: LightPicture, to: LightPicture, there: (pixel: number) => boolean): void {
  const { width, height } = to;
  const [columns, rows] = [between(small.width, width), between(small.height, height)];
  const blend = (from: Float32Array, out: Float32Array, n: number) => {
    for (let y = 0; y < height; y++) {
      const t = rows.share[y];
      const above = small.width * rows.first[y];
      const below = small.width * rows.second[y];
      for (let x = 0; x < width; x++) {
        const pixel = y * width + x;
        if (there(pixel)) continue;
        const s = columns.share[x];
        const a = n * (above + columns.first[x]);
        const b = n * (above + columns.second[x]);
        const c = n * (below + columns.first[x]);
        const d = n * (below + columns.second[x]);
        for (let k = 0; k < n; k++)
          out[n * pixel + k] =
            (1 - t) * ((1 - s) * from[a + k] + s * from[b + k]) + t * ((1 - s) * from[c + k] + s * from[d + k]);
      }
    }
  };
  blend(small.values, to.values, 4);
  blend(small.added, to.added, 3);
}

/** For each of many positions along a line: the two coarse pixels around it, and its share of the second. */
function between(few: number, many: number) {
  const [first, second, share] = [new Int32Array(many), new Int32Array(many), new Float64Array(many)];
  for (let i = 0; i < many; i++) {
    const at = Math.max(0, Math.min(few - 1, ((i + 0.5) * few) / many - 0.5));
    first[i] = Math.floor(at);
    second[i] = Math.min(few - 1, first[i] + 1);
    share[i] = at - first[i];
  }
  return { first, second, share };
}

/** All light of a picture with coverage, 4 numbers per pixel, premultiplied for compositing. */
export function wholeLight({ values, added }: LightPicture): Float32Array {
  const out = values.slice();
  for (let i = 0; i < added.length; i++) out[4 * Math.floor(i / 3) + (i % 3)] += added[i];
  return out;
}

/** Means of the samples of a whole picture. */
export function lightIn(sums: Float64Array, width: number, height: number): LightPicture {
  const out = emptyLight(width, height);
  putTile(out, { x: 0, y: 0, width, height }, sums);
  return out;
}
