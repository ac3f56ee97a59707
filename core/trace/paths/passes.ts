import type { PictureAt } from '../../evaluate/picture-at';
import { normalize, vec3 } from '../../maths/vec3';
import type { Mesh } from '../../shape/mesh';
import { lampsOf } from '../scene/lamps';
import { FIRST_HIT, FIRST_RIBBON, passNumbers, sourcesOf } from './pass-numbers';
import { COUNT, SUMS, type Tile, type TileResult } from './tile-result';

/** A pass (AOV): a value for every pixel. */
export interface Pass {
  /** Layer name in files: letters, digits and underscores. */
  readonly name: string;
  /** One letter for each number of a pixel. */
  readonly channels: string;
  /** Rows from the top. */
  readonly values: Float32Array;
}

/**
 * Passes of a picture, from the same rays: albedo, normal, planar depth (the convention of compositing), distance along
 * the ray and position of the first hit, its emission, coverage of each ribbon, a colour for each copy, and radiance by
 * source. The latter sum to the picture, masks to its coverage.
 *
 * @example
 * const buffer = new PassBuffer(picture, width, height);
 * for (const tile of tilesOf(width, height)) buffer.put(tile, exposure.traced(tile, 64));
 * buffer.passes(); // albedo, normal, depth, position, own, mask_…, light_…
 */
export class PassBuffer {
  private readonly numbers: number;
  private readonly means: Float32Array;
  private readonly lights: readonly string[];

  constructor(
    private readonly picture: PictureAt<Mesh>,
    readonly width: number,
    readonly height: number,
  ) {
    const lamps = lampsOf(picture.scene.lights);
    this.numbers = passNumbers(picture.ribbons.length, lamps.length);
    this.lights = uniqueNames([...lamps.map((l) => l.type), 'sky', 'glow', 'rest'].slice(0, sourcesOf(lamps.length)));
    this.means = new Float32Array(this.numbers * width * height);
  }

  /** Planar depth of the first hit, times coverage. */
  private ahead(i: number, first: (i: number, which: number) => number): number {
    const { position, target } = this.picture.scene.camera;
    const way = normalize(vec3((k) => target[k] - position[k])) ?? [0, 0, -1];
    const there = first(i, FIRST_HIT.count);
    return way.reduce((sum, w, k) => sum + w * (first(i, FIRST_HIT.position + k) - there * position[k]), 0);
  }

  /** Puts the result of a tile in its place. */
  put({ x, y, width, height }: Tile, { sums, passes }: Pick<TileResult, 'sums' | 'passes'>): void {
    if (!passes) throw new RangeError('This was traced without passes; ask for them in its settings.');
    for (let j = 0; j < height; j++)
      for (let i = 0; i < width; i++) {
        const from = j * width + i;
        const to = (y + j) * this.width + x + i;
        const n = sums[SUMS * from + COUNT];
        if (!(n > 0)) continue;
        for (let k = 0; k < this.numbers; k++) this.means[this.numbers * to + k] = passes[this.numbers * from + k] / n;
      }
  }

  /** All passes. `names` are those of the ribbons, in order. */
  passes(names: readonly string[] = this.picture.ribbons.map((r) => r.id)): Pass[] {
    const { means, numbers } = this;
    const ribbons = this.picture.ribbons.length;
    const pixels = this.width * this.height;
    const pass = (name: string, channels: string, at: (i: number, k: number) => number): Pass => {
      const n = channels.length;
      const values = new Float32Array(n * pixels);
      for (let i = 0; i < pixels; i++) for (let k = 0; k < n; k++) values[n * i + k] = at(i, k);
      return { name, channels, values };
    };
    // In a partly covered pixel, values are of the covered part.
    const first = (i: number, which: number) => means[numbers * i + which];
    const there = (i: number) => first(i, FIRST_HIT.count) || 1;
    const length = (i: number) => Math.hypot(...[0, 1, 2].map((k) => first(i, FIRST_HIT.normal + k))) || 1;
    const masks = uniqueNames([...names, 'ground']);
    const sources = FIRST_RIBBON + ribbons + 1;
    return [
      pass('albedo', 'RGB', (i, k) => first(i, FIRST_HIT.albedo + k)),
      pass('normal', 'XYZ', (i, k) => first(i, FIRST_HIT.normal + k) / length(i)),
      pass('depth', 'Z', (i) => (first(i, FIRST_HIT.count) > 0 ? this.ahead(i, first) / there(i) : BACKGROUND_DEPTH)),
      pass('distance', 'Z', (i) =>
        first(i, FIRST_HIT.count) > 0 ? first(i, FIRST_HIT.distance) / there(i) : BACKGROUND_DEPTH,
      ),
      pass('position', 'XYZ', (i, k) => first(i, FIRST_HIT.position + k) / there(i)),
      pass('own', 'RGB', (i, k) => first(i, FIRST_HIT.emission + k)),
      pass('copy', 'RGB', (i, k) => first(i, FIRST_HIT.copy + k)),
      ...masks.map((name, r) => pass(`mask_${name}`, 'A', (i) => first(i, FIRST_RIBBON + r))),
      ...this.lights.map((name, s) => pass(`light_${name}`, 'RGB', (i, k) => first(i, sources + 3 * s + k))),
    ];
  }
}

/** Whether it is radiance by source; these sum to the picture. */
export const isLight = ({ name }: Pass): boolean => name.startsWith('light_');

/** Depth of the background in metres: farther than anything (common practice of compositing). */
const BACKGROUND_DEPTH = 1e10;

/** Unique names of letters, digits and underscores. */
function uniqueNames(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    const plain =
      name
        .normalize('NFKD')
        .replace(/[^A-Za-z0-9]+/g, '_')
        .replace(/^_+|_+$/g, '') || 'ribbon';
    let emission = plain;
    for (let n = 2; taken.has(emission.toLowerCase()); n++) emission = `${plain}_${n}`;
    taken.add(emission.toLowerCase());
    return emission;
  });
}
