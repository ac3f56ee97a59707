import type { Field } from './gradients';

/**
 * Simplex noise in three dimensions (K. Perlin, “Noise hardware”, 2001; S. Gustavson, “Simplex noise
 * demystified”, 2005): four corners of a tetrahedron, each with a gradient that fades with
 * (0.6 − r²)⁴.
 *
 * @param p 512 numbers: a permutation of 0…255 written twice
 * @param g 256 gradients of 3 numbers
 */
export function simplexField(p: Uint8Array, g: Float64Array, mask = 255): Field {
  return (x, y, z) => {
    const s = (x + y + z) / 3;
    const i = Math.floor(x + s);
    const j = Math.floor(y + s);
    const k = Math.floor(z + s);
    const t = (i + j + k) / 6;
    const x0 = x - i + t;
    const y0 = y - j + t;
    const z0 = z - k + t;
    // The order of the three fractions selects the tetrahedron of the skewed cube.
    const i1 = x0 >= y0 && x0 >= z0 ? 1 : 0;
    const j1 = y0 > x0 && y0 >= z0 ? 1 : 0;
    const k1 = 1 - i1 - j1;
    const i2 = x0 >= y0 || x0 >= z0 ? 1 : 0;
    const k2 = z0 > y0 || z0 > x0 ? 1 : 0;
    const j2 = 2 - i2 - k2;
    const corner = (a: number, b: number, c: number, shift: number): number => {
      const dx = x0 - a + shift;
      const dy = y0 - b + shift;
      const dz = z0 - c + shift;
      let fade = 0.6 - dx * dx - dy * dy - dz * dz;
      if (fade < 0) return 0;
      fade *= fade;
      const n = 3 * p[((i + a) & mask) + p[((j + b) & mask) + p[(k + c) & mask]]];
      return fade * fade * (g[n] * dx + g[n + 1] * dy + g[n + 2] * dz);
    };
    return 32 * (corner(0, 0, 0, 0) + corner(i1, j1, k1, 1 / 6) + corner(i2, j2, k2, 1 / 3) + corner(1, 1, 1, 1 / 2));
  };
}
