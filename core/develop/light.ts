import { SUMS, type Tile } from '../trace/tracer';

/** A picture as light before exposure: red, green, blue and how much is covered, premultiplied, rows from the top. */
export interface LightPicture {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}

export function emptyLight(width: number, height: number): LightPicture {
  return { width, height, values: new Float32Array(4 * width * height) };
}

/** Puts the mean of a tile's samples in its place; every pixel may have another number of them. */
export function putTile(to: LightPicture, { x, y, width, height }: Tile, sums: Float64Array): void {
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const [from, at] = [SUMS * (j * width + i), 4 * ((y + j) * to.width + x + i)];
      const share = sums[from + 5] > 0 ? 1 / sums[from + 5] : 0;
      for (let k = 0; k < 4; k++) to.values[at + k] = sums[from + k] * share;
    }
}

/** The mean of the samples of a whole picture. */
export function lightIn(sums: Float64Array, width: number, height: number): LightPicture {
  const out = emptyLight(width, height);
  putTile(out, { x: 0, y: 0, width, height }, sums);
  return out;
}
