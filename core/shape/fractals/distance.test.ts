import { describe, expect, it } from 'vitest';
import { randomSource, randomUnitVector } from '../../maths/random';
import { boxFold, mengerSponge, powerBulb, quaternionJulia, roundedLattice, type DistanceBound } from './distance';

/** Members of the sets by their definitions, with no distance in them. */
const inBulb = (power: number) => (x: number, y: number, z: number) => {
  let [a, b, c] = [x, y, z];
  for (let i = 0; i < 60; i++) {
    const r = Math.hypot(a, b, c);
    if (r > 2) return false;
    if (r === 0) return true;
    const [t, p] = [power * Math.acos(c / r), power * Math.atan2(b, a)];
    const k = r ** power;
    [a, b, c] = [k * Math.sin(t) * Math.cos(p) + x, k * Math.sin(t) * Math.sin(p) + y, k * Math.cos(t) + z];
  }
  return true;
};
const inJulia = (c: readonly number[]) => (x: number, y: number, z: number) => {
  let q = [x, y, z, 0];
  for (let i = 0; i < 60; i++) {
    const n = q.reduce((s, v) => s + v * v, 0);
    if (n > 16) return false;
    q = [q[0] ** 2 - q[1] ** 2 - q[2] ** 2 - q[3] ** 2 + c[0], ...[1, 2, 3].map((k) => 2 * q[0] * q[k] + c[k])];
  }
  return true;
};
/** A place is in the sponge unless two of its three base-3 digits are 1 somewhere. */
const inSponge = (rounds: number) => (x: number, y: number, z: number) => {
  const edge = 1 / Math.sqrt(3);
  let p = [x, y, z].map((v) => (v / edge + 1) / 2);
  if (p.some((v) => v < 0 || v > 1)) return false;
  for (let i = 0; i < rounds; i++) {
    p = p.map((v) => v * 3);
    const digits = p.map((v) => Math.min(2, Math.floor(v)));
    if (digits.filter((d) => d === 1).length >= 2) return false;
    p = p.map((v, k) => v - digits[k]);
  }
  return true;
};

/** How often a place nearer than the bound says is in the set all the same, of all that were tried. */
function misses(bound: DistanceBound, member: (x: number, y: number, z: number) => boolean, seed: number) {
  const random = randomSource(seed);
  let [tried, wrong, inside] = [0, 0, 0];
  for (let i = 0; i < 4000; i++) {
    const p = [2.4 * random() - 1.2, 2.4 * random() - 1.2, 2.4 * random() - 1.2] as const;
    if (member(...p)) inside++;
    const d = bound(...p);
    if (d <= 1e-4) continue;
    const u = randomUnitVector(random);
    const q = p.map((x, k) => x + 0.98 * d * random() * u[k]) as unknown as typeof p;
    tried++;
    if (member(...q)) wrong++;
  }
  return { tried, wrong, inside };
}

describe('distance bounds are never larger than the distance to the published sets', () => {
  it('of the power bulb, of which it is an estimate: wrong at fewer than one place in a hundred', () => {
    const { tried, wrong, inside } = misses(powerBulb(8, 0, 30), inBulb(8), 1);
    expect(inside).toBeGreaterThan(100);
    expect(tried).toBeGreaterThan(1500);
    expect(wrong / tried).toBeLessThan(0.01);
  });
  it('of Julia sets of quaternions', () => {
    const c = [-0.2, 0.6, 0.2, 0.1] as const;
    const { tried, wrong, inside } = misses(quaternionJulia(c, 40), inJulia(c), 2);
    expect(inside).toBeGreaterThan(20);
    expect(tried).toBeGreaterThan(1500);
    expect(wrong).toBe(0);
  });
  it('of the Menger sponge, whose volume after n rounds is (20/27)ⁿ', () => {
    const { tried, wrong } = misses(mengerSponge(1, 0, 3), inSponge(3), 3);
    expect(tried).toBeGreaterThan(1500);
    expect(wrong).toBe(0);
    const bound = mengerSponge(1, 0, 3);
    const random = randomSource(8);
    const edge = 1 / Math.sqrt(3);
    let inside = 0;
    for (let i = 0; i < 40_000; i++) {
      const p = [0, 1, 2].map(() => edge * (2 * random() - 1)) as [number, number, number];
      if (bound(...p) <= 0) inside++;
    }
    expect(inside / 40_000).toBeCloseTo((20 / 27) ** 3, 1.8);
  });
  it('of the box and ball fold: 0 where it never goes off, and outside a way that may be gone', () => {
    for (const scale of [2, -1.8]) {
      const bound = boxFold(scale, 0, 14);
      expect(bound(0, 0, 0)).toBe(0);
      expect(bound(1.5, 0, 0)).toBeGreaterThan(0.05);
      expect(bound(1.5, 0, 0)).toBeLessThanOrEqual(1.5);
    }
  });
  it('of the lattice: it comes again with every spacing, and its rods are as thick as they are said to be', () => {
    const bound = roundedLattice(0.5, 0.26, 0.06, 0);
    expect(bound(0.11, 0.2, -0.31)).toBeCloseTo(bound(0.61, -0.3, 0.19), 12);
    expect(bound(0.25, 0.03, 0)).toBeCloseTo(0, 12);
  });
});
