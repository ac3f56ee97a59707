import type { PictureAt } from '../../evaluate/picture-at';
import { determinant } from '../../maths/matrix';
import { displayToLight } from '../../maths/srgb';
import type { Copies, Mesh } from '../../shape/mesh';
import { NO_TREE, type PlacedMesh } from './meshes';

/** An instance of a mesh. */
export interface Instance {
  /** Identifier of its ribbon; absent if it has none. */
  readonly ribbon?: string;
  /** Index among the lines and dots of the picture; absent for a shape. */
  readonly overlay?: number;
  readonly placed: PlacedMesh;
  /** Column-major. */
  readonly matrix: ArrayLike<number>;
  /** Index of the first surface of its ribbon. */
  readonly surface: number;
  /** Overrides: linear base colour, roughness, metalness; NaN for none. */
  readonly overrides: readonly number[];
  /** Its order in the repeat, 0…1, and the number that seeds its randomness. */
  readonly order: number;
  readonly id: number;
}

export const IDENTITY = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
const NONE = [NaN, NaN, NaN, NaN, NaN];

/** An instance that is no copy. */
export function singleInstance(placed: PlacedMesh, surface: number, matrix: ArrayLike<number> = IDENTITY): Instance {
  return { placed, matrix, surface, overrides: NONE, order: 0, id: 0 };
}

/** All instances of a picture. */
export function instancesOf(
  { ribbons }: Pick<PictureAt<Mesh>, 'ribbons'>,
  placed: ReadonlyMap<Mesh, PlacedMesh>,
  blocks: ReadonlyMap<string, number>,
): readonly Instance[] {
  const out: Instance[] = [];
  for (const { id, shape } of ribbons) {
    const surface = blocks.get(id) ?? 0;
    const { copies } = shape;
    if (!copies) {
      const p = placed.get(shape)!;
      if (p.root !== NO_TREE) out.push({ ...singleInstance(p, surface), ribbon: id });
      continue;
    }
    for (let i = 0; i < copies.source.length; i++) {
      const p = placed.get(copies.sources[copies.source[i]])!;
      const matrix = copies.matrices.subarray(16 * i, 16 * i + 16);
      const size = Math.abs(determinant(matrix));
      if (p.root === NO_TREE || !(size > 1e-30 && size < 1e30 && matrix.every(Number.isFinite))) continue;
      const index = copies.materialIndices?.[i] ?? 0;
      const materialRibbon = index > 0 ? copies.materialRibbons?.[index - 1] : undefined;
      out.push({
        ribbon: id,
        placed: p,
        matrix,
        surface: materialRibbon === undefined ? surface : (blocks.get(materialRibbon) ?? surface),
        overrides: overridesOf(copies, i),
        order: copies.order[i] / copies.places,
        id: copies.ids?.[i] ?? i,
      });
    }
  }
  return out;
}

function overridesOf({ channels }: Copies, i: number): readonly number[] {
  if (!channels) return NONE;
  const { baseColor, roughness, metalness } = channels;
  const colour = [0, 1, 2].map((k) => (baseColor ? displayToLight(baseColor[3 * i + k]) : NaN));
  return [...colour, roughness?.[i] ?? NaN, metalness?.[i] ?? NaN];
}

/** Bounds of an instance in world space: lowest and highest x, y, z. */
export function worldBoxOf(standing: Instance): number[] {
  const out = [0, 0, 0, 0, 0, 0];
  putWorldBox(standing, out, 0, 3);
  return out;
}

/** The same, written into a larger array: the lowest from `at` on, the highest `apart` numbers behind. */
export function putWorldBox(
  { placed: { low, high }, matrix: m }: Instance,
  to: { [i: number]: number },
  at: number,
  apart: number,
): void {
  for (let r = 0; r < 3; r++) {
    // Bounds of a transformed box: each side extends whichever bound it can (J. Arvo, “Transforming axis-aligned
    // bounding boxes”, 1990).
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
