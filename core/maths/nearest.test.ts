import { describe, expect, it } from 'vitest';
import { randomSource } from './random';
import { NearestPoints } from './nearest';

describe('the nearest of many points', () => {
  const random = randomSource(7);
  const sets: Record<string, () => Float32Array> = {
    anywhere: () => Float32Array.from({ length: 900 }, () => random() * 2 - 1),
    'in a plane': () => Float32Array.from({ length: 900 }, (_, i) => (i % 3 === 1 ? 0.5 : random())),
    'in a few places, many in each': () => Float32Array.from({ length: 900 }, () => Math.floor(random() * 3)),
    'in two clusters far apart': () =>
      Float32Array.from({ length: 900 }, (_, i) => random() * 1e-3 + (i % 6 < 3 ? 0 : 1000)),
    alone: () => Float32Array.of(1, 2, 3),
  };
  for (const [name, make] of Object.entries(sets))
    it(`${name}: as by looking at all of them`, () => {
      const p = make();
      const tree = new NearestPoints(p);
      for (let q = 0; q < 200; q++) {
        const [x, y, z] = [random() * 3 - 1, random() * 3 - 1, random() * 3 - 1];
        let best = Infinity;
        for (let i = 0; i < p.length; i += 3)
          best = Math.min(best, (p[i] - x) ** 2 + (p[i + 1] - y) ** 2 + (p[i + 2] - z) ** 2);
        expect(tree.squared(x, y, z)).toBe(best);
      }
    });
  it('is endlessly far where there is none', () =>
    expect(new NearestPoints(new Float32Array(0)).squared(0, 0, 0)).toBe(Infinity));
});
