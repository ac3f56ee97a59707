import { TraceMemory } from '../trace/memory/memory';
import { COUNT, FEATURES, FOUND, SUMS, VALID, type Tile, type TileResult } from '../trace/paths/tile-result';
import { keepLight } from './keep-light';
import { wholeLight, type LightPicture } from './light';

/** Pixels whose rows are laid out at a time. */
const STRIP = 65_536;
/** Assumed brightness behind a picture as it is shown: middle grey, in linear light. */
const BEHIND = 0.2;
/** Feature numbers of a pixel, besides variance. */
const FEATURE_COUNT = 8;

/** Denoiser features of a picture. */
export interface DenoiserFeatures {
  readonly width: number;
  readonly height: number;
  /** Assumed radiance of the background, before exposure: a shadow on it is visible in proportion. */
  readonly behind: number;
  /** Mean features, `GUIDES` numbers per pixel: albedo, normal, metres away, and coverage. */
  readonly features: Float32Array;
  /** Variance of the mean luminance of each pixel over its background. */
  readonly variance: Float32Array;
}

/** @param exposure of the camera, a factor */
export function emptyFeatures(width: number, height: number, exposure: number): DenoiserFeatures {
  return {
    width,
    height,
    behind: BEHIND / exposure,
    features: new Float32Array(FEATURE_COUNT * width * height),
    variance: new Float32Array(width * height),
  };
}

/** Puts the result of a tile in its place. */
export function putFeatures(
  to: DenoiserFeatures,
  { x, y, width, height }: Tile,
  { sums, features }: Pick<TileResult, 'sums' | 'features'>,
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
      // If none of few samples found a shadow, there may still be one (rule of succession, P. S. de Laplace, 1774).
      const shade = Math.min(1, Math.max(0, (sums[s + 3] - features[f + FOUND] + 0.5 * (1 - there)) / (n + 1)));
      // Six times its variance, found by experiment: shadows are smooth, and gain from wider means.
      const shadow = 6 * to.behind * to.behind * shade * (1 - shade);
      // A single sample says nothing about the spread of others.
      to.variance[at] = n > 1 ? (spread + shadow) / (n - 1) : mean * mean;
      // Samples without valid features are assumed to see what the others do.
      const scale = features[f + VALID] > 0 ? there / features[f + VALID] : 0;
      for (let k = 0; k < 7; k++) to.features[FEATURE_COUNT * at + k] = features[f + k] * scale;
      to.features[FEATURE_COUNT * at + 7] = there;
    }
}

/** Denoises a picture: a function of its samples and features alone, so that frame N equals frame 0. */
export class Denoiser {
  private readonly memory = new TraceMemory();

  /** @throws SceneTooLarge if there is not enough memory for a picture of that size */
  denoised(light: LightPicture, features: DenoiserFeatures): LightPicture {
    const { width, height, values, added } = light;
    const filtered = (of: Float32Array, stride: 3 | 4) =>
      keepLight(of, this.filtered(of, stride, width, height, features), stride, width, height);
    const clean = filtered(values, 4);
    const veil = added.some((x) => x > 0) ? filtered(added, 3) : added;
    return { width, height, values: clean, added: veil };
  }

  /**
   * Denoises radiance by source with the weights of the picture itself, so that all sources still sum to the denoised
   * picture.
   *
   * @param parts red, green and blue of every pixel as traced; together they are all radiance of the picture
   * @param clean result of `denoised` for the picture
   */
  parts(
    parts: readonly Float32Array[],
    light: LightPicture,
    features: DenoiserFeatures,
    clean: LightPicture,
  ): Float32Array<ArrayBuffer>[] {
    const { width, height, values } = light;
    const out = parts.map((part) => this.filtered(values, 4, width, height, features, part));
    const whole = wholeLight(clean);
    // Added light has weights of its own, and negative light is clamped: the remainder goes to each source by its
    // share.
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
   * Filters light of `stride` numbers per pixel.
   *
   * @param cargo light filtered along with the same weights, 3 numbers per pixel; its result is then returned
   */
  private filtered(
    values: Float32Array,
    stride: 3 | 4,
    width: number,
    height: number,
    { features, variance, behind }: DenoiserFeatures,
    cargo?: Float32Array,
  ): Float32Array<ArrayBuffer> {
    const { memory } = this;
    memory.release();
    const wide = (width + 3) & ~3;
    const at = memory.allocate(4 * memory.run.denoiseRoom(wide, height, cargo !== undefined));
    const most = Math.min(height, Math.max(1, Math.floor(STRIP / width)));
    const lent = memory.allocate(4 * stride * width * most);
    const met = memory.allocate(4 * FEATURE_COUNT * width * most);
    const spread = memory.allocate(4 * width * most);
    const lay = (to: number, of: Float32Array, each: number, from: number, rows: number) => {
      const first = each * width * from;
      memory.floats(to, each * width * rows).set(of.subarray(first, first + each * width * rows));
    };
    const strips = function* () {
      for (let from = 0; from < height; from += most) yield [from, Math.min(most, height - from)] as const;
    };
    for (const [from, rows] of strips()) {
      lay(lent, values, stride, from, rows);
      lay(met, features, FEATURE_COUNT, from, rows);
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
