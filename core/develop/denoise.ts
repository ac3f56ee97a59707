import { TraceMemory } from '../trace/memory';
import { COUNT, FEATURES, FOUND, SUMS, TOLD, type Tile, type Worked } from '../trace/worked';
import { keepLight } from './keep-light';
import { wholeLight, type LightPicture } from './light';

/** Pixels whose rows are laid out at a time. */
const STRIP = 65_536;
/** How bright what lies behind a picture is as it is shown, about: middle grey, in linear light. */
const BEHIND = 0.2;
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
      // Six times its variance, by trying: of shadows, which are soft, means over more are better.
      const shadow = 6 * to.behind * to.behind * shade * (1 - shade);
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
    const filtered = (of: Float32Array, stride: 3 | 4) =>
      keepLight(of, this.filtered(of, stride, width, height, guides), stride, width, height);
    const clean = filtered(values, 4);
    const veil = added.some((x) => x > 0) ? filtered(added, 3) : added;
    return { width, height, values: clean, added: veil };
  }

  /**
   * Light of a picture by where it comes from, without grain: means by the weights of the picture itself, so that all of
   * them together are the picture without grain.
   *
   * @param parts red, green and blue of every pixel, as they are traced; together they are all light of the picture
   * @param clean what `denoised` has made of the picture
   */
  parts(
    parts: readonly Float32Array[],
    light: LightPicture,
    guides: Guides,
    clean: LightPicture,
  ): Float32Array<ArrayBuffer>[] {
    const { width, height, values } = light;
    const out = parts.map((part) => this.filtered(values, 4, width, height, guides, part));
    const whole = wholeLight(clean);
    // What covers nothing has weights of its own, and light below 0 is none: what that leaves goes to each by its share.
    for (let i = 0; i < 3 * width * height; i++) {
      const all = 4 * Math.floor(i / 3) + (i % 3);
      let sum = 0;
      for (const part of out) sum += part[i];
      if (sum > 0) for (const part of out) part[i] *= whole[all] / sum;
      else if (out.length > 0) out[out.length - 1][i] = whole[all];
    }
    return out;
  }

  /**
   * Takes the grain out of light, of `stride` numbers a pixel.
   *
   * @param cargo light that goes along with the same weights, 3 numbers a pixel: what comes of that is given then
   */
  private filtered(
    values: Float32Array,
    stride: 3 | 4,
    width: number,
    height: number,
    { features, variance, behind }: Guides,
    cargo?: Float32Array,
  ): Float32Array<ArrayBuffer> {
    const { memory } = this;
    memory.release();
    const wide = (width + 3) & ~3;
    const at = memory.room(4 * memory.run.denoiseRoom(wide, height, cargo !== undefined));
    const most = Math.min(height, Math.max(1, Math.floor(STRIP / width)));
    const lent = memory.room(4 * stride * width * most);
    const met = memory.room(4 * GUIDES * width * most);
    const spread = memory.room(4 * width * most);
    const lay = (to: number, of: Float32Array, each: number, from: number, rows: number) => {
      const first = each * width * from;
      memory.floats(to, each * width * rows).set(of.subarray(first, first + each * width * rows));
    };
    const strips = function* () {
      for (let from = 0; from < height; from += most) yield [from, Math.min(most, height - from)] as const;
    };
    for (const [from, rows] of strips()) {
      lay(lent, values, stride, from, rows);
      lay(met, features, GUIDES, from, rows);
      lay(spread, variance, 1, from, rows);
      memory.run.layRows(at, width, height, from, rows, lent, stride, met, spread);
    }
    if (cargo)
      for (const [from, rows] of strips()) {
        lay(lent, cargo, 3, from, rows);
        memory.run.layCargo(at, width, height, from, rows, lent);
      }
    memory.run.denoise(at, wide, height, behind, cargo !== undefined);
    const each = cargo ? 3 : stride;
    const out = new Float32Array(each * width * height);
    for (const [from, rows] of strips()) {
      if (cargo) memory.run.readCargo(at, width, height, from, rows, lent);
      else memory.run.readRows(at, width, height, from, rows, lent, stride);
      out.set(memory.floats(lent, each * width * rows), each * width * from);
    }
    return out;
  }
}
