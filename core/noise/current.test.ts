import { describe, expect, it } from 'vitest';
import { withoutKernels } from '../kernels/kernels';
import { randomSource } from '../maths/random';
import { curlCurrent } from './current';

const random = randomSource(12);
const points = Float32Array.from({ length: 900 }, () => 30 * random() - 15);
const settings = { scale: 1.3, octaves: 2, seed: 3, rate: 0.7 };
const clock = { frame: 13, frames: 100 };
const at = (f: (p: Float32Array) => Float32Array, p: number[]) => [...withoutKernels(() => f(Float32Array.from(p)))];

describe('a swirling current', () => {
  it('compiled and in plain TypeScript agree to 1e−5', () => {
    const [fast, plain] = [
      curlCurrent(settings, clock)(points),
      withoutKernels(() => curlCurrent(settings, clock)(points)),
    ];
    fast.forEach((x, i) => expect(Math.abs(x - plain[i])).toBeLessThan(1e-5));
  });
  it('has neither sources nor sinks: its divergence by central differences is nothing against its slopes', () => {
    const f = curlCurrent(settings, clock);
    const h = 0.01;
    let [divergence, slopes] = [0, 0];
    for (let i = 0; i < 300; i += 3) {
      const p = [...points.slice(i, i + 3)];
      const d = [0, 1, 2].map((k) => {
        const [a, b] = [1, -1].map((s) =>
          at(
            f,
            p.map((x, j) => x + (j === k ? s * h : 0)),
          ),
        );
        return a.map((x, j) => (x - b[j]) / (2 * h));
      });
      divergence += (d[0][0] + d[1][1] + d[2][2]) ** 2;
      slopes += d.flat().reduce((s, x) => s + x * x, 0);
    }
    expect(Math.sqrt(divergence / slopes)).toBeLessThan(2e-3);
  });
  it('comes round bit for bit, changes on the way, and has no direction it prefers', () => {
    const run = (frame: number) => curlCurrent(settings, { frame, frames: 100 })(points);
    expect(run(100)).toEqual(run(0));
    expect(run(50)).not.toEqual(run(0));
    const means = [0, 1, 2].map(
      (k) =>
        run(0)
          .filter((_, i) => i % 3 === k)
          .reduce((a, b) => a + b, 0) / 300,
    );
    for (const m of means) expect(Math.abs(m)).toBeLessThan(0.25);
  });
  it('does not stand still in itself where nothing of it moves', () => {
    const still = curlCurrent({ ...settings, rate: 0 }, clock)(points);
    expect(Math.sqrt(still.reduce((s, x) => s + x * x, 0) / 300)).toBeGreaterThan(0.5);
  });
});
