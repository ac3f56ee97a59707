import { TraceMemory } from '../trace/memory';
import { COUNT, FEATURES, SUMS, type Tile, type Worked } from '../trace/tracer';
import type { LightPicture } from './light';

/** See core/trace/assembly/denoise.ts. */
const MARGIN = 36;
const PLANES = 14;
const [RED, VARIANCE, INSIDE, NORMAL, FAR, SLOPE] = [0, 3, 4, 5, 8, 9];
/** What light is divided by is never less, so that the dark stays where it is. */
const DARKEST = 0.05;

/** What the grain of a picture is taken out by. */
export interface Guides {
  readonly width: number;
  readonly height: number;
  /** FEATURES numbers a pixel, means; see Tracer.work. */
  readonly features: Float32Array;
  /** Variance of the mean brightness of each pixel. */
  readonly variance: Float32Array;
}

export function emptyGuides(width: number, height: number): Guides {
  return {
    width,
    height,
    features: new Float32Array(FEATURES * width * height),
    variance: new Float32Array(width * height),
  };
}

/** Puts what has been found out about a tile in its place. */
export function putGuides(
  to: Guides,
  { x, y, width, height }: Tile,
  { sums, features }: Pick<Worked, 'sums' | 'features'>,
): void {
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const from = j * width + i;
      const at = (y + j) * to.width + x + i;
      const s = SUMS * from;
      const n = sums[s + COUNT];
      if (!(n > 0)) continue;
      const all = (k: number) => sums[s + k] + sums[s + COUNT + 1 + k];
      const mean = (0.2126 * all(0) + 0.7152 * all(1) + 0.0722 * all(2)) / n;
      const spread = Math.max(0, sums[s + 4] / n - mean * mean);
      // Of one sample nothing is known about how others would be.
      to.variance[at] = n > 1 ? spread / (n - 1) : mean * mean;
      for (let k = 0; k < FEATURES; k++) to.features[FEATURES * at + k] = features[FEATURES * from + k] / n;
    }
}

/** Takes the grain out of a picture: a function of it and what its rays met alone, so that frame N is frame 0. */
export class Denoiser {
  private readonly memory = new TraceMemory();

  /** @throws SceneTooLarge where there is not enough memory for a picture of that size */
  denoised(light: LightPicture, guides: Guides): LightPicture {
    const { width, height, values, added } = light;
    const clean = this.filtered(values, 4, width, height, guides);
    const veil = added.some((x) => x > 0) ? this.filtered(added, 3, width, height, guides) : added;
    return { width, height, values: clean, added: veil };
  }

  /** Takes the grain out of light, of `stride` numbers a pixel. */
  private filtered(
    values: Float32Array,
    stride: 3 | 4,
    width: number,
    height: number,
    { features, variance }: Guides,
  ): Float32Array {
    const { memory } = this;
    memory.release();
    const wide = (width + 3) & ~3;
    const across = wide + 2 * MARGIN;
    const plane = across * (height + 2 * MARGIN);
    const at = memory.room(4 * PLANES * plane);
    const p = memory.floats(at, PLANES * plane);
    p.fill(0);
    const place = (x: number, y: number) => (y + MARGIN) * across + x + MARGIN;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const [i, o] = [y * width + x, place(x, y)];
        const f = FEATURES * i;
        const there = features[f + 7];
        let bright = 0;
        for (let k = 0; k < 3; k++) {
          const by = colourAt(features, f, k);
          bright += [0.2126, 0.7152, 0.0722][k] * by;
          p[(RED + k) * plane + o] = values[stride * i + k] / by;
        }
        p[VARIANCE * plane + o] = variance[i] / (bright * bright);
        p[INSIDE * plane + o] = 1;
        const length = Math.hypot(features[f + 3], features[f + 4], features[f + 5]);
        // What is not there at all is all alike: it looks no way, and the same as what is beside it.
        for (let k = 0; k < 3; k++)
          p[(NORMAL + k) * plane + o] = length > 1e-6 ? features[f + 3 + k] / length : k === 2 ? -1 : 0;
        p[FAR * plane + o] = there > 0 ? features[f + 6] / there : 0;
      }
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const z = (i: number, j: number) =>
          p[FAR * plane + place(Math.min(width - 1, Math.max(0, i)), Math.min(height - 1, Math.max(0, j)))];
        // The smaller of both sides: the larger may be that of an outline.
        const least = (a: number, b: number, c: number) => Math.min(Math.abs(a - b), Math.abs(c - b));
        p[SLOPE * plane + place(x, y)] =
          least(z(x - 1, y), z(x, y), z(x + 1, y)) + least(z(x, y - 1), z(x, y), z(x, y + 1));
      }
    memory.run.denoise(at, wide, height);
    const out = values.slice();
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const [i, o] = [y * width + x, place(x, y)];
        for (let k = 0; k < 3; k++)
          out[stride * i + k] = Math.max(0, p[(RED + k) * plane + o]) * colourAt(features, FEATURES * i, k);
      }
    return out;
  }
}

/** The colour that light has fallen on; white where it has fallen on nothing. */
function colourAt(features: Float32Array, at: number, k: number): number {
  return Math.max(DARKEST, features[at + k] + 1 - features[at + 7]);
}
