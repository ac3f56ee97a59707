/** Number of halvings; it bounds the width of the halo. */
export const LEVELS = 6;
/** A single pixel may be thousands of times as bright as its neighbours; its halo is clamped to what is visible. */
const BRIGHTEST = 64;

interface Level {
  readonly width: number;
  readonly height: number;
  /** 3 numbers per pixel. */
  readonly values: Float32Array;
}

/** Light composited over another picture: 4 numbers per pixel, rows from the top. */
interface Light {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}

/** Share of each wider halo that is added to the narrower one. */
export function widerShare(spread: number): number {
  return 0.25 + 0.75 * spread;
}

/** Sum of all halos of a spread, for uniform light. */
export function bloomGain(spread: number): number {
  let sum = 1;
  for (let i = 1; i < LEVELS; i++) sum = 1 + sum * widerShare(spread);
  return sum;
}

/** Adds a level at a position, bilinear, clamped at its edges. */
function addRead(
  { width, height, values }: Level,
  stride: number,
  u: number,
  v: number,
  by: number,
  out: number[],
): void {
  const x = Math.min(width - 1, Math.max(0, u * width - 0.5));
  const y = Math.min(height - 1, Math.max(0, v * height - 0.5));
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [p, q] = [x - i, y - j];
  const [i1, j1] = [Math.min(width - 1, i + 1), Math.min(height - 1, j + 1)];
  const a = stride * (j * width + i);
  const b = stride * (j * width + i1);
  const c = stride * (j1 * width + i);
  const d = stride * (j1 * width + i1);
  const [wa, wb, wc, wd] = [(1 - p) * (1 - q) * by, p * (1 - q) * by, (1 - p) * q * by, p * q * by];
  for (let k = 0; k < 3; k++)
    out[k] += wa * values[a + k] + wb * values[b + k] + wc * values[c + k] + wd * values[d + k];
}

/** Offsets of the thirteen taps in pixels of the image being halved, and their weights. */
const TAPS: readonly (readonly [number, number, number])[] = (() => {
  const sum = new Map<string, number>();
  const box = (x: number, y: number, by: number) => {
    for (const [dx, dy] of [
      [-1, -1],
      [1, -1],
      [-1, 1],
      [1, 1],
    ]) {
      const key = `${x + dx},${y + dy}`;
      sum.set(key, (sum.get(key) ?? 0) + by / 4);
    }
  };
  box(0, 0, 0.5);
  for (const [x, y] of [
    [-1, -1],
    [1, -1],
    [-1, 1],
    [1, 1],
  ])
    box(x, y, 0.125);
  return [...sum].map(([key, by]) => {
    const [x, y] = key.split(',').map(Number);
    return [x, y, by] as const;
  });
})();

const TENT: readonly (readonly [number, number, number])[] = [-1, 0, 1].flatMap((y) =>
  [-1, 0, 1].map((x) => [x, y, ((2 - Math.abs(x)) * (2 - Math.abs(y))) / 16] as const),
);

function filtered(
  from: Level,
  stride: number,
  width: number,
  height: number,
  taps: typeof TAPS,
  each: (c: number[]) => void,
): Level {
  const values = new Float32Array(3 * width * height);
  const c = [0, 0, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      c[0] = c[1] = c[2] = 0;
      const [u, v] = [(x + 0.5) / width, (y + 0.5) / height];
      for (const [dx, dy, by] of taps) addRead(from, stride, u + dx / from.width, v + dy / from.height, by, c);
      each(c);
      values.set(c, 3 * (y * width + x));
    }
  return { width, height, values };
}

/**
 * Bloom: what is brighter than a limit is halved repeatedly with a filter of thirteen taps that does not flicker, and
 * added up on the way back with a tent of nine (J. Jimenez, Next Generation Post Processing in Call of Duty, SIGGRAPH
 * 2014 course notes). The same as in quick light.
 *
 * @param from light brighter than this blooms
 * @returns reads the halo at a position of the picture, 0…1 from the left and from the top
 */
export function bloomOf(light: Light, from: number, spread: number): (u: number, v: number) => number[] {
  const bright = (c: number[]) => {
    for (let k = 0; k < 3; k++) c[k] = Math.max(0, Math.min(BRIGHTEST, c[k]));
    const most = Math.max(c[0], c[1], c[2]);
    const above = Math.max(0, most - from) / Math.max(most, 1e-4);
    for (let k = 0; k < 3; k++) c[k] *= above;
  };
  const size = (side: number, i: number) => Math.max(1, side >> (i + 1));
  const levels = [filtered(light, 4, size(light.width, 0), size(light.height, 0), TAPS, bright)];
  for (let i = 1; i < LEVELS; i++)
    levels.push(filtered(levels[i - 1], 3, size(light.width, i), size(light.height, i), TAPS, () => undefined));
  const share = widerShare(spread);
  for (let i = LEVELS - 1; i > 0; i--) {
    const to = levels[i - 1];
    const wider = filtered(levels[i], 3, to.width, to.height, TENT, () => undefined);
    for (let n = 0; n < to.values.length; n++) to.values[n] += share * wider.values[n];
  }
  const out = [0, 0, 0];
  return (u, v) => {
    out[0] = out[1] = out[2] = 0;
    addRead(levels[0], 3, u, v, 1, out);
    return out;
  };
}
