import type { Surfaces } from '../finish/finish';
import type { Standing } from './standing';
import { glowBrightness, wornBy } from './surfaces';

/** Triangles that give light are sought out up to so many; beyond, their light is met by chance alone. */
const MOST = 1_000_000;

export interface Glows {
  /** 3 numbers each: which of what stands there (whole), which triangle (whole), share of the light up to and with it. */
  readonly table: Float32Array;
  readonly count: number;
  /** Area times brightness of all. */
  readonly power: number;
}

/** Everything in a picture whose faces give light. */
export function glowsOf(all: readonly Standing[], surfacesAt: (surface: number) => Surfaces): Glows {
  const found: number[] = [];
  const shares: number[] = [];
  let power = 0;
  for (let i = 0; i < all.length; i++) {
    const surfaces = surfacesAt(all[i].surface);
    if (!Object.values(surfaces).some((s) => glowBrightness(s) > 0)) continue;
    const { root, drawn } = all[i].placed;
    // Light of an endless form, which has no faces, is met by chance.
    if (root < 0) continue;
    const { positions, triangles, kinds } = drawn;
    const m = all[i].matrix;
    for (let t = 0; t < kinds.length; t++) {
      const brightness = glowBrightness(wornBy(surfaces, kinds[t]));
      if (brightness <= 0) continue;
      const corner = (v: number, r: number) => {
        const o = 3 * triangles[3 * t + v];
        return m[r] * positions[o] + m[4 + r] * positions[o + 1] + m[8 + r] * positions[o + 2];
      };
      const [a, b] = [1, 2].map((v) => [0, 1, 2].map((r) => corner(v, r) - corner(0, r)));
      const area = Math.hypot(a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]) / 2;
      if (!(area > 0 && area < 1e30)) continue;
      if (found.length >= 2 * MOST) return { table: new Float32Array(), count: 0, power: 0 };
      found.push(i, t);
      shares.push((power += area * brightness));
    }
  }
  const table = new Float32Array(3 * shares.length);
  const whole = new Uint32Array(table.buffer);
  shares.forEach((share, i) => {
    whole.set([found[2 * i], found[2 * i + 1]], 3 * i);
    table[3 * i + 2] = share / power;
  });
  return { table, count: shares.length, power };
}
