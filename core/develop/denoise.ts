import { TraceMemory } from '../trace/memory';
import { COUNT, FEATURES, FOUND, SUMS, TOLD, type Tile, type Worked } from '../trace/tracer';
import type { LightPicture } from './light';

/** See core/trace/assembly/denoise.ts. */
const MARGIN = 12;
/** Planes that are written: light, variance, cover, what is within, normal, distance, its slope, colour. */
const PLANES = 14;
/** How bright what lies behind a picture is as it is shown, about: middle grey, in linear light. */
const BEHIND = 0.2;
/** What light is divided by is never less, so that the dark stays where it is. */
const DARKEST = 0.05;

/** Numbers of a pixel that its grain is taken out by, besides its variance. */
const GUIDES = 8;

/** What the grain of a picture is taken out by. */
export interface Guides {
  readonly width: number;
  readonly height: number;
  /** About how bright what is behind is, before exposure: a shadow on it is seen by as much. */
  readonly behind: number;
  /** Means of what is seen, `GUIDES` numbers a pixel: colour, normal, metres away, and how much of the pixel it is. */
  readonly features: Float32Array;
  /** Variance of the mean brightness of each pixel, as it is seen over what is behind. */
  readonly variance: Float32Array;
}

/** @param exposure of the camera, a factor */
export function emptyGuides(width: number, height: number, exposure: number): Guides {
  return {
    width,
    height,
    behind: BEHIND / exposure,
    features: new Float32Array(GUIDES * width * height),
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
      const f = FEATURES * from;
      const there = features[f + FOUND] / n;
      // Where none of few samples has met a shadow there may be some all the same (P. S. de Laplace, 1774).
      const shade = Math.min(1, Math.max(0, (sums[s + 3] - features[f + FOUND] + 0.5 * (1 - there)) / (n + 1)));
      // Three times its variance, by trying: of shadows, which are soft, means over more are better.
      const shadow = 3 * to.behind * to.behind * shade * (1 - shade);
      // Of one sample nothing is known about how others would be.
      to.variance[at] = n > 1 ? (spread + shadow) / (n - 1) : mean * mean;
      // Samples that do not tell what is seen are taken to see what the others do.
      const scale = features[f + TOLD] > 0 ? there / features[f + TOLD] : 0;
      for (let k = 0; k < 7; k++) to.features[GUIDES * at + k] = features[f + k] * scale;
      to.features[GUIDES * at + 7] = there;
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
    { features, variance, behind }: Guides,
  ): Float32Array {
    const { memory } = this;
    memory.release();
    const wide = (width + 3) & ~3;
    const across = wide + 2 * MARGIN;
    const size = memory.run.planeRoom(wide, height);
    const at = memory.room(4 * memory.run.denoiseRoom(wide, height));
    const all = memory.floats(at, PLANES * size);
    all.fill(0);
    const plane = (k: number) => all.subarray(k * size, (k + 1) * size);
    const [red, green, blue, spread, cover, inside, nx, ny, nz, far, slope, cr, cg, cb] = Array.from(
      { length: PLANES },
      (_, k) => plane(k),
    );
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        const o = (y + MARGIN) * across + x + MARGIN;
        const f = GUIDES * i;
        const there = features[f + 7];
        const bare = 1 - there;
        const r = Math.max(DARKEST, features[f] + bare);
        const g = Math.max(DARKEST, features[f + 1] + bare);
        const b = Math.max(DARKEST, features[f + 2] + bare);
        red[o] = values[stride * i] / r;
        green[o] = values[stride * i + 1] / g;
        blue[o] = values[stride * i + 2] / b;
        const bright = 0.2126 * r + 0.7152 * g + 0.0722 * b;
        spread[o] = variance[i] / (bright * bright);
        if (stride === 4) cover[o] = values[4 * i + 3] - there;
        inside[o] = 1;
        const [x3, y3, z3] = [features[f + 3], features[f + 4], features[f + 5]];
        const length = Math.sqrt(x3 * x3 + y3 * y3 + z3 * z3);
        // What is not there at all is all alike: it looks no way, and the same as what is beside it.
        const some = length > 1e-6;
        nx[o] = some ? x3 / length : 0;
        ny[o] = some ? y3 / length : 0;
        nz[o] = some ? z3 / length : -1;
        far[o] = there > 0 ? features[f + 6] / there : 0;
        cr[o] = r;
        cg[o] = g;
        cb[o] = b;
      }
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const o = (y + MARGIN) * across + x + MARGIN;
        const z = far[o];
        // The smaller of both sides: the larger may be that of an outline.
        const left = Math.abs(z - far[x > 0 ? o - 1 : o]);
        const right = Math.abs(z - far[x < width - 1 ? o + 1 : o]);
        const up = Math.abs(z - far[y > 0 ? o - across : o]);
        const down = Math.abs(z - far[y < height - 1 ? o + across : o]);
        slope[o] = Math.min(left, right) + Math.min(up, down);
      }
    memory.run.denoise(at, wide, height, behind);
    const out = values.slice();
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const i = stride * (y * width + x);
        const o = (y + MARGIN) * across + x + MARGIN;
        out[i] = Math.max(0, red[o] * cr[o]);
        out[i + 1] = Math.max(0, green[o] * cg[o]);
        out[i + 2] = Math.max(0, blue[o] * cb[o]);
        if (stride === 4) out[i + 3] = Math.min(1, Math.max(0, features[GUIDES * (y * width + x) + 7] + cover[o]));
      }
    return out;
  }
}
