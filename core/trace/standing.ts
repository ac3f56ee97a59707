import type { PictureAt } from '../evaluate/picture-at';
import { determinant } from '../maths/matrix';
import { displayToLight } from '../maths/srgb';
import type { Copies, Mesh } from '../shape/mesh';
import { NOTHING, type Placed } from './shapes';

/** Something that stands in a picture. */
export interface Standing {
  /** Identifier of its ribbon; absent for what is of none. */
  readonly ribbon?: string;
  /** Its number among the lines and dots of the picture; absent for a form. */
  readonly overlay?: number;
  readonly placed: Placed;
  /** By columns. */
  readonly matrix: ArrayLike<number>;
  /** The first of the surfaces of its ribbon. */
  readonly surface: number;
  /** What it has of its own: base colour as light, roughness, metalness; not a number where it has none. */
  readonly own: readonly number[];
  /** Its place in the repeat, 0…1, and the number that chance tells it by. */
  readonly order: number;
  readonly id: number;
}

export const IDENTITY = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
const NONE = [NaN, NaN, NaN, NaN, NaN];

/** Something that is no copy. */
export function single(placed: Placed, surface: number, matrix: ArrayLike<number> = IDENTITY): Standing {
  return { placed, matrix, surface, own: NONE, order: 0, id: 0 };
}

/** Everything that stands in a picture. */
export function standingIn(
  { ribbons }: Pick<PictureAt<Mesh>, 'ribbons'>,
  placed: ReadonlyMap<Mesh, Placed>,
  blocks: ReadonlyMap<string, number>,
): readonly Standing[] {
  const out: Standing[] = [];
  for (const { id, shape } of ribbons) {
    const surface = blocks.get(id) ?? 0;
    const { copies } = shape;
    if (!copies) {
      const p = placed.get(shape)!;
      if (p.root !== NOTHING) out.push({ ...single(p, surface), ribbon: id });
      continue;
    }
    for (let i = 0; i < copies.source.length; i++) {
      const p = placed.get(copies.sources[copies.source[i]])!;
      const matrix = copies.matrices.subarray(16 * i, 16 * i + 16);
      const size = Math.abs(determinant(matrix));
      if (p.root === NOTHING || !(size > 1e-30 && size < 1e30 && matrix.every(Number.isFinite))) continue;
      const worn = copies.wears?.[i] ?? 0;
      const wearer = worn > 0 ? copies.wardrobe?.[worn - 1] : undefined;
      out.push({
        ribbon: id,
        placed: p,
        matrix,
        surface: wearer === undefined ? surface : (blocks.get(wearer) ?? surface),
        own: ownOf(copies, i),
        order: copies.order[i] / copies.places,
        id: copies.ids?.[i] ?? i,
      });
    }
  }
  return out;
}

function ownOf({ channels }: Copies, i: number): readonly number[] {
  if (!channels) return NONE;
  const { baseColor, roughness, metalness } = channels;
  const colour = [0, 1, 2].map((k) => (baseColor ? displayToLight(baseColor[3 * i + k]) : NaN));
  return [...colour, roughness?.[i] ?? NaN, metalness?.[i] ?? NaN];
}

/** Lowest x, y, z and highest x, y, z of something, in the room. */
export function boxOf(standing: Standing): number[] {
  const out = [0, 0, 0, 0, 0, 0];
  putBox(standing, out, 0, 3);
  return out;
}

/** The same, put among other numbers: the lowest from one place on, the highest so many behind them. */
export function putBox(
  { placed: { low, high }, matrix: m }: Standing,
  to: { [i: number]: number },
  at: number,
  apart: number,
): void {
  for (let r = 0; r < 3; r++) {
    // The box of a turned box: each of its sides goes to whichever side it makes longer.
    let [lowest, highest] = [m[12 + r], m[12 + r]];
    for (let k = 0; k < 3; k++) {
      const [x, y] = [m[4 * k + r] * low[k], m[4 * k + r] * high[k]];
      lowest += Math.min(x, y);
      highest += Math.max(x, y);
    }
    to[at + r] = lowest;
    to[at + r + apart] = highest;
  }
}
