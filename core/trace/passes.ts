import type { PictureAt } from '../evaluate/picture-at';
import { normalize, vec3 } from '../maths/vec3';
import type { Mesh } from '../shape/mesh';
import { lampsOf } from './lamps';
import { FIRST, FIRST_RIBBON, passNumbers, sourcesOf } from './pass-numbers';
import { COUNT, SUMS, type Tile, type Worked } from './worked';

/** Something that is told of every pixel. */
export interface Pass {
  /** As layers of files are named: letters, digits and underscores. */
  readonly name: string;
  /** One letter each, as many as there are numbers a pixel. */
  readonly channels: string;
  /** Rows from the top. */
  readonly values: Float32Array;
}

/**
 * What is told of a picture besides itself, from the same rays as it: colour, normal, depth (square to the picture, as
 * compositing has it), distance (along the ray) and place of what is met first, its own light, how much of a pixel each
 * ribbon covers, a colour for each copy, and the light of the picture by where it comes from. The last add up to the
 * picture, masks to how much is covered.
 *
 * @example
 * const sheet = new PassSheet(picture, width, height);
 * for (const tile of tilesOf(width, height)) sheet.put(tile, exposure.traced(tile, 64));
 * sheet.passes(); // albedo, normal, depth, position, own, mask_…, light_…
 */
export class PassSheet {
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
    this.lights = unlike([...lamps.map((l) => l.type), 'sky', 'glow', 'rest'].slice(0, sourcesOf(lamps.length)));
    this.means = new Float32Array(this.numbers * width * height);
  }

  /** How far what is met first lies ahead of the camera, square to its picture, times how much of the pixel it covers. */
  private ahead(i: number, first: (i: number, which: number) => number): number {
    const { position, target } = this.picture.scene.camera;
    const way = normalize(vec3((k) => target[k] - position[k])) ?? [0, 0, -1];
    const there = first(i, FIRST.count);
    return way.reduce((sum, w, k) => sum + w * (first(i, FIRST.place + k) - there * position[k]), 0);
  }

  /** Puts what has been found out about a tile in its place. */
  put({ x, y, width, height }: Tile, { sums, passes }: Pick<Worked, 'sums' | 'passes'>): void {
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

  /** All of them. `names` are those of the ribbons, in their order. */
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
    // Where only some of a pixel is covered, what is told is of that part.
    const first = (i: number, which: number) => means[numbers * i + which];
    const there = (i: number) => first(i, FIRST.count) || 1;
    const length = (i: number) => Math.hypot(...[0, 1, 2].map((k) => first(i, FIRST.normal + k))) || 1;
    const masks = unlike([...names, 'ground']);
    const sources = FIRST_RIBBON + ribbons + 1;
    return [
      pass('albedo', 'RGB', (i, k) => first(i, FIRST.colour + k)),
      pass('normal', 'XYZ', (i, k) => first(i, FIRST.normal + k) / length(i)),
      pass('depth', 'Z', (i) => (first(i, FIRST.count) > 0 ? this.ahead(i, first) / there(i) : NOWHERE)),
      pass('distance', 'Z', (i) => (first(i, FIRST.count) > 0 ? first(i, FIRST.far) / there(i) : NOWHERE)),
      pass('position', 'XYZ', (i, k) => first(i, FIRST.place + k) / there(i)),
      pass('own', 'RGB', (i, k) => first(i, FIRST.own + k)),
      pass('copy', 'RGB', (i, k) => first(i, FIRST.copy + k)),
      ...masks.map((name, r) => pass(`mask_${name}`, 'A', (i) => first(i, FIRST_RIBBON + r))),
      ...this.lights.map((name, s) => pass(`light_${name}`, 'RGB', (i, k) => first(i, sources + 3 * s + k))),
    ];
  }
}

/** Whether it is light of the picture, by where that comes from: all of them add up to it. */
export const isLight = ({ name }: Pass): boolean => name.startsWith('light_');

/** How far away is what is not there, in metres: farther than anything (common practice of compositing). */
const NOWHERE = 1e10;

/** Names of letters, digits and underscores alone, none of them twice. */
function unlike(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    const plain =
      name
        .normalize('NFKD')
        .replace(/[^A-Za-z0-9]+/g, '_')
        .replace(/^_+|_+$/g, '') || 'ribbon';
    let own = plain;
    for (let n = 2; taken.has(own.toLowerCase()); n++) own = `${plain}_${n}`;
    taken.add(own.toLowerCase());
    return own;
  });
}
