import type { Instance } from './instances';
import type { Surfaces } from '../../finish/finish';
import { emissiveLuminance, surfaceOf } from './surfaces';

export interface EmissiveTriangles {
  /** 3 numbers each: instance (integer), triangle (integer), cumulative share of the power. */
  readonly table: Float32Array;
  readonly count: number;
  /** Power of all: area times luminance. */
  readonly power: number;
  /** Centre, weighted by power, and root mean square distance from it, above 0. */
  readonly centre: readonly number[];
  readonly radius: number;
}

/** Collects all emissive triangles, however many; a scene too large for the memory is reported there. */
export function emissiveTrianglesOf(
  all: readonly Instance[],
  surfacesAt: (surface: number) => Surfaces,
): EmissiveTriangles {
  // A distance field has no triangles: BSDF sampling alone finds its light.
  const glowing = all.flatMap(({ surface, placed }, i) =>
    placed.root >= 0 && Object.values(surfacesAt(surface)).some((s) => emissiveLuminance(s) > 0) ? [i] : [],
  );
  const most = glowing.reduce((n, i) => n + all[i].placed.mesh.kinds.length, 0);
  const table = new Float32Array(3 * most);
  const whole = new Uint32Array(table.buffer);
  const powers = new Float64Array(most);
  const [sum, squares] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  let [count, power] = [0, 0];
  for (const i of glowing) {
    const surfaces = surfacesAt(all[i].surface);
    const { positions, triangles, kinds } = all[i].placed.mesh;
    const m = all[i].matrix;
    const brightness = Object.fromEntries(
      Object.keys(surfaces).map((k) => [k, emissiveLuminance(surfaceOf(surfaces, +k))]),
    );
    for (let t = 0; t < kinds.length; t++) {
      const bright = brightness[kinds[t]] ?? brightness[0];
      if (bright <= 0) continue;
      const corner = (v: number, r: number) => {
        const o = 3 * triangles[3 * t + v];
        return m[r] * positions[o] + m[4 + r] * positions[o + 1] + m[8 + r] * positions[o + 2] + m[12 + r];
      };
      const own = [0, 1, 2].map((r) => corner(0, r));
      const [a, b] = [1, 2].map((v) => own.map((x, r) => corner(v, r) - x));
      const area = Math.hypot(a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]) / 2;
      if (!(area > 0 && area < 1e30)) continue;
      whole.set([i, t], 3 * count);
      powers[count++] = power += area * bright;
      for (let r = 0; r < 3; r++) {
        const x = own[r] + (a[r] + b[r]) / 3;
        sum[r] += area * bright * x;
        squares[r] += area * bright * x * x;
      }
    }
  }
  for (let k = 0; k < count; k++) table[3 * k + 2] = powers[k] / power;
  const centre = sum.map((x) => (power > 0 ? x / power : 0));
  const spread = squares.reduce((n, x, r) => n + (power > 0 ? x / power - centre[r] ** 2 : 0), 0);
  return { table: table.subarray(0, 3 * count), count, power, centre, radius: Math.sqrt(Math.max(spread, 1e-12)) };
}
