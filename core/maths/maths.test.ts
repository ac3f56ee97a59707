import { quat, vec3 as peer } from 'gl-matrix';
import { describe, expect, it } from 'vitest';
import { fingerprint, hash53 } from './hash';
import { hermite, hermiteSlope } from './hermite';
import { isIdentity } from './matrix';
import { axisAngle, matrixOf, multiply, rotate, sinCosDegrees, slerp, turnXYZ, type Quaternion } from './quaternion';
import { randomSource, randomUnitVector } from './random';
import { formatRational, gcd, lcm, rational, toRational } from './rational';
import { add, cross, distance, dot, normalize, scale, subtract, vec3 } from './vec3';

const random = randomSource(1);
const three = (): [number, number, number] => vec3(() => 4 * random() - 2);
const close = (a: ArrayLike<number>, b: ArrayLike<number>, digits = 9) =>
  Array.from(a).forEach((x, k) => expect(x).toBeCloseTo(b[k], digits));

describe('matrices', () => {
  it('leave everything where it is as the identity alone', () => {
    const matrix = Float32Array.from({ length: 16 }, (_, i) => (i % 5 === 0 ? 1 : 0));
    expect(isIdentity(matrix)).toBe(true);
    for (let i = 0; i < 16; i++) expect(isIdentity(matrix.with(i, 0.5)), `number ${i}`).toBe(false);
  });
});

describe('vectors, against npm gl-matrix', () => {
  it('sums, products and lengths', () => {
    for (let n = 0; n < 50; n++) {
      const [a, b] = [three(), three()];
      close(add(a, b), peer.add([0, 0, 0], a, b), 6);
      close(subtract(a, b), peer.subtract([0, 0, 0], a, b), 6);
      close(scale(a, 3), peer.scale([0, 0, 0], a, 3), 6);
      close(cross(a, b), peer.cross([0, 0, 0], a, b), 5);
      expect(dot(a, b)).toBeCloseTo(peer.dot(a, b), 9);
      expect(distance(a, b)).toBeCloseTo(peer.distance(a, b), 9);
      close(normalize(a)!, peer.normalize([0, 0, 0], a), 6);
    }
    expect(cross([1, 0, 0], [0, 1, 0])).toEqual([0, 0, 1]);
    expect(normalize([0, 0, 0])).toBeNull();
    expect(normalize([1e-13, 0, 0], 1e-12)).toBeNull();
  });
});

describe('rotations', () => {
  const some = (): Quaternion => axisAngle(three(), 720 * random() - 360);
  it('multiply, turn and interpolate as npm gl-matrix does', () => {
    for (let n = 0; n < 50; n++) {
      const [a, b, v] = [some(), some(), three()];
      close(multiply(a, b), quat.multiply(quat.create(), [...a], [...b]), 5);
      close(rotate(a, v), peer.transformQuat([0, 0, 0], v, [...a]), 5);
      close(slerp(a, b, 0.3), quat.slerp(quat.create(), [...a], [...b], 0.3), 5);
    }
  });
  it('a third of a turn about the diagonal of a cube leads x to y to z (worked example, common practice)', () => {
    const q = axisAngle([1, 1, 1], 120);
    close(rotate(q, [1, 0, 0]), [0, 1, 0]);
    close(rotate(q, [0, 1, 0]), [0, 0, 1]);
    close(matrixOf(q), [0, 0, 1, 1, 0, 0, 0, 1, 0]);
  });
  it('x, then y, then z; quarter turns are exact to the last bit', () => {
    close(rotate(turnXYZ([90, 90, 0]), [0, 1, 0]), [1, 0, 0]);
    for (const [a, s, c] of [
      [0, 0, 1],
      [90, 1, 0],
      [180, 0, -1],
      [270, -1, 0],
      [-450, -1, 0],
      [3600, 0, 1],
    ]) {
      const [sine, cosine] = sinCosDegrees(a);
      expect(sine === s && cosine === c).toBe(true);
    }
  });
});

describe('hashes and chance', () => {
  it('hash53 is cyrb53 of bryc (public domain), by the values its author gives (from memory)', () => {
    expect(['a', 'b', 'revenge', 'revenue'].map((w) => hash53(w, 0))).toEqual([
      7929297801672961, 8684336938537663, 4051478007546757, 8309097637345594,
    ]);
  });
  it('fingerprints are of one length, and differ where texts differ in one letter', () => {
    const seen = new Set(Array.from({ length: 20_000 }, (_, i) => fingerprint(`{"angle":${i}}`)));
    expect(seen.size).toBe(20_000);
    expect(new Set([...seen].map((x) => x.length))).toEqual(new Set([22]));
  });
  it('chance is Mulberry32 of T. Ettinger (public domain): the same as written out in whole numbers without overflow', () => {
    const MASK = (1n << 32n) - 1n;
    const peerSource = (seed: number) => {
      let a = (((BigInt(seed >>> 0) * 0x9e3779b1n) & MASK) ^ 0x85ebca6bn) & MASK;
      return () => {
        a = (a + 0x6d2b79f5n) & MASK;
        let t = ((a ^ (a >> 15n)) * (a | 1n)) & MASK;
        t = (((t + (((t ^ (t >> 7n)) * (t | 61n)) & MASK)) & MASK) ^ t) & MASK;
        return Number(t ^ (t >> 14n)) / 2 ** 32;
      };
    };
    for (const seed of [0, 1, 77, 99_999]) {
      const [mine, theirs] = [randomSource(seed), peerSource(seed)];
      for (let i = 0; i < 200; i++) expect(mine()).toBe(theirs());
    }
  });
  it('is even: chi-square over 100 boxes (upper 1 % point for 99 degrees of freedom: 134.6)', () => {
    const source = randomSource(5);
    const boxes = new Array<number>(100).fill(0);
    for (let i = 0; i < 100_000; i++) boxes[Math.floor(100 * source())]++;
    expect(boxes.reduce((sum, n) => sum + (n - 1000) ** 2 / 1000, 0)).toBeLessThan(134.6);
  });
  it('directions are even over the sphere: mean 0, and each coordinate squared ⅓ on average', () => {
    const source = randomSource(6);
    const all = Array.from({ length: 20_000 }, () => randomUnitVector(source));
    for (const k of [0, 1, 2]) {
      expect(all.reduce((s, v) => s + v[k], 0) / all.length).toBeCloseTo(0, 1);
      expect(all.reduce((s, v) => s + v[k] ** 2, 0) / all.length).toBeCloseTo(1 / 3, 2);
    }
  });
});

describe('fractions and cubics', () => {
  it('the convergents of π are 3, 22/7, 333/106, 355/113 (Hardy & Wright, An Introduction to the Theory of Numbers, ch. X)', () => {
    const within = (tolerance: number) => formatRational(toRational(Math.PI, tolerance));
    expect([0.2, 0.01, 1e-4, 1e-6].map(within)).toEqual(['3', '22/7', '333/106', '355/113']);
  });
  it('gcd, lcm and reduced fractions (Euclid, Elements VII: 1071 and 462 have 21 in common)', () => {
    expect([gcd(1071, 462), lcm(4, 6), gcd(0, 0)]).toEqual([21, 12, 0]);
    expect(rational(-6, -4)).toEqual({ num: 3, den: 2 });
    expect(() => rational(1, 0)).toThrow(RangeError);
  });
  it('a cubic Hermite segment meets its ends and slopes, and any cubic is its own (glTF 2.0, appendix C)', () => {
    const cubic = (x: number) => 2 - x + 3 * x * x - 0.5 * x ** 3;
    const slope = (x: number) => -1 + 6 * x - 1.5 * x * x;
    const rise = cubic(1) - cubic(0);
    for (const x of [0, 0.2, 0.71, 1]) {
      expect(hermite(2, rise, slope(0), slope(1), x)).toBeCloseTo(cubic(x), 12);
      expect(hermiteSlope(rise, slope(0), slope(1), x)).toBeCloseTo(slope(x), 12);
    }
  });
});
