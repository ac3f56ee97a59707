import { COUNT, SUMS, type Tile } from '../trace/tracer';

/** A picture as light before exposure, rows from the top. */
export interface LightPicture {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue of what covers a pixel, and how much is covered; premultiplied. */
  readonly values: Float32Array;
  /** Red, green and blue of light that covers nothing: of lit air, and of what only adds light. */
  readonly added: Float32Array;
}

/** Where of the sums of a pixel light stands that covers nothing. */
const ADDED = 6;

export function emptyLight(width: number, height: number): LightPicture {
  const pixels = width * height;
  return { width, height, values: new Float32Array(4 * pixels), added: new Float32Array(3 * pixels) };
}

/** Puts the mean of a tile's samples in its place; every pixel may have another number of them. */
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
 * Fills pixels from a smaller picture of the same, evenly between the middles of its pixels.
 *
 * @param there pixels that have light of their own, and are left as they are
 */
export function fillFrom(small: LightPicture, to: LightPicture, there: (pixel: number) => boolean): void {
  const { width, height } = to;
  const blend = (
    from: Float32Array,
    out: Float32Array,
    n: number,
    pixel: number,
    [a, b, c, d]: readonly number[],
    w: readonly number[],
  ) => {
    for (let k = 0; k < n; k++)
      out[n * pixel + k] =
        w[0] * from[n * a + k] + w[1] * from[n * b + k] + w[2] * from[n * c + k] + w[3] * from[n * d + k];
  };
  for (let y = 0; y < height; y++) {
    const v = Math.max(0, Math.min(small.height - 1, ((y + 0.5) * small.height) / height - 0.5));
    const [j, t] = [Math.floor(v), v % 1];
    const below = Math.min(small.height - 1, j + 1);
    for (let x = 0; x < width; x++) {
      const pixel = y * width + x;
      if (there(pixel)) continue;
      const u = Math.max(0, Math.min(small.width - 1, ((x + 0.5) * small.width) / width - 0.5));
      const [i, s] = [Math.floor(u), u % 1];
      const right = Math.min(small.width - 1, i + 1);
      const four = [j * small.width + i, j * small.width + right, below * small.width + i, below * small.width + right];
      const shares = [(1 - s) * (1 - t), s * (1 - t), (1 - s) * t, s * t];
      blend(small.values, to.values, 4, pixel, four, shares);
      blend(small.added, to.added, 3, pixel, four, shares);
    }
  }
}

/** All light of a picture with how much is covered, 4 numbers a pixel: as it is laid over another (premultiplied). */
export function wholeLight({ values, added }: LightPicture): Float32Array {
  const out = values.slice();
  for (let i = 0; i < added.length; i++) out[4 * Math.floor(i / 3) + (i % 3)] += added[i];
  return out;
}

/** The mean of the samples of a whole picture. */
export function lightIn(sums: Float64Array, width: number, height: number): LightPicture {
  const out = emptyLight(width, height);
  putTile(out, { x: 0, y: 0, width, height }, sums);
  return out;
}
