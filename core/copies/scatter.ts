import { columnsOf } from '../shape/columns';
import { boundsOf } from '../shape/measure';
import type { Mesh } from '../shape/mesh';
import { randomSource } from '../maths/random';
import { areasOf, folded, totalOf, triangleAt } from './areas';

/** Points on a surface, by triangle and barycentric coordinates, so that they move with it. */
export interface SurfacePlaces {
  /** Vertices of the triangle, 3 numbers per point. */
  readonly corners: Uint32Array;
  /** Barycentric coordinates of the second and third corner, two numbers per point. */
  readonly shares: Float32Array;
}

/**
 * Points distributed uniformly by area over a surface, deterministic in the seed.
 *
 * @param spread least distance in metres between two points, by dart throwing with up to 30 tries each, so that fewer
 * than `count` may fit; 0 for none
 */
export function scatterOn(mesh: Mesh, count: number, seed: number, spread: number): SurfacePlaces {
  const areas = areasOf(mesh);
  if (totalOf(areas) === 0) return { corners: new Uint32Array(0), shares: new Float32Array(0) };
  const random = randomSource(seed + 401);
  const [corners, shares]: number[][] = [[], []];
  const p = mesh.positions;
  const darts = spread > 0 ? new Darts(spread) : null;
  for (let tries = darts ? 30 * count : count; tries > 0 && shares.length < 2 * count; tries--) {
    const t = triangleAt(areas, random());
    const [u, w] = folded(random(), random());
    const [a, b, c] = areas.corners.subarray(3 * t, 3 * t + 3);
    if (darts) {
      const at = [0, 1, 2].map(
        (k) => p[3 * a + k] + u * (p[3 * b + k] - p[3 * a + k]) + w * (p[3 * c + k] - p[3 * a + k]),
      );
      if (!darts.throw(at[0], at[1], at[2])) continue;
    }
    corners.push(a, b, c);
    shares.push(u, w);
  }
  return { corners: Uint32Array.from(corners), shares: Float32Array.from(shares) };
}

/** Surface area in m². */
export function areaOn(mesh: Mesh): number {
  return totalOf(areasOf(mesh));
}

/** A Poisson-disc set by dart throwing (R. L. Cook, 1986): no two points are closer than a distance. */
class Darts {
  private readonly cells = new Map<string, number[]>();

  constructor(private readonly spread: number) {}

  /** Adds a point unless one is too close. */
  throw(x: number, y: number, z: number): boolean {
    const s = this.spread;
    const [i, j, k] = [Math.floor(x / s), Math.floor(y / s), Math.floor(z / s)];
    for (let a = i - 1; a <= i + 1; a++)
      for (let b = j - 1; b <= j + 1; b++)
        for (let c = k - 1; c <= k + 1; c++) {
          const there = this.cells.get(`${a},${b},${c}`);
          if (there)
            for (let q = 0; q < there.length; q += 3)
              if ((there[q] - x) ** 2 + (there[q + 1] - y) ** 2 + (there[q + 2] - z) ** 2 < s * s) return false;
        }
    const key = `${i},${j},${k}`;
    const own = this.cells.get(key);
    if (own) own.push(x, y, z);
    else this.cells.set(key, [x, y, z]);
    return true;
  }
}

/**
 * Points distributed uniformly inside a closed surface, 3 numbers each: points of its bounds from which an upward line
 * crosses the surface an odd number of times.
 *
 * @param spread least distance between two points in metres, 0 for none
 */
export function scatterIn(mesh: Mesh, count: number, seed: number, spread: number): Float32Array {
  const p = mesh.positions;
  const bounds = boundsOf(p);
  if (!bounds) return new Float32Array(0);
  const size = bounds.max.map((m, k) => m - bounds.min[k]);
  const inside = insideOf(mesh);
  const random = randomSource(seed + 409);
  const darts = spread > 0 ? new Darts(spread) : null;
  const out: number[] = [];
  for (let tries = 60 * count; tries > 0 && out.length < 3 * count; tries--) {
    const at = size.map((s, k) => bounds.min[k] + s * random());
    if (!inside(at[0], at[1], at[2]) || (darts && !darts.throw(at[0], at[1], at[2]))) continue;
    out.push(...at);
  }
  return Float32Array.from(out);
}

/** Whether a point is inside a closed surface. */
export function insideOf(mesh: Mesh): (x: number, y: number, z: number) => boolean {
  const columns = columnsOf(mesh);
  const bounds = boundsOf(mesh.positions);
  const size = bounds ? Math.max(...bounds.max.map((m, k) => m - bounds.min[k])) : 0;
  return (x, y, z) => {
    let crossings = 0;
    // Slightly off the point, so that the line crosses faces and not their edges, where two would count.
    columns.meetings(x + 1.3e-7 * size, z + 0.7e-7 * size, (at) => (crossings += Number(at > y)));
    return crossings % 2 === 1;
  };
}
