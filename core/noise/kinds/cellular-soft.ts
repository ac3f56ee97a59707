import { featurePoints } from '../feature-points';
import { USUAL_NOISE, type NoiseKind } from '../kind';
import { permutation } from '../permutation';

export const MEAN = { euclidean: 0.5794, manhattan: 0.8877, chebyshev: 0.4547 } as const;
export const SPREAD = 1.9;
/** Sharpness of the soft minimum: larger is closer to F1. */
export const SHARP = 12;

/**
 * A smooth F1: −ln Σ e^(−k·d) / k over the feature points of the 27 cells round a place (the soft minimum of convex
 * analysis), so that cells merge without a crease. Points farther than one cell away weigh less than e^(−12).
 */
export const cellularSoft: NoiseKind = {
  kind: 'cellular-soft',
  title: 'Soft cells',
  help: 'Dimples that melt into each other.',
  cellular: true,
  field(seed, rate, clock, { mask, metric, jitter } = USUAL_NOISE) {
    const p = permutation(seed);
    const q = featurePoints(seed, rate, clock, jitter);
    const measure = {
      euclidean: (x: number, y: number, z: number) => Math.sqrt(x * x + y * y + z * z),
      manhattan: (x: number, y: number, z: number) => Math.abs(x) + Math.abs(y) + Math.abs(z),
      chebyshev: (x: number, y: number, z: number) => Math.max(Math.abs(x), Math.abs(y), Math.abs(z)),
    }[metric];
    const mean = MEAN[metric];
    return (px, py, pz) => {
      const [fx, fy, fz] = [Math.floor(px), Math.floor(py), Math.floor(pz)];
      const [x, y, z] = [px - fx, py - fy, pz - fz];
      let sum = 0;
      for (let a = -1; a <= 1; a++) {
        const hx = p[(fx + a) & mask];
        for (let b = -1; b <= 1; b++) {
          const hy = p[hx + ((fy + b) & mask)];
          for (let c = -1; c <= 1; c++) {
            const i = 3 * p[hy + ((fz + c) & mask)];
            const d = measure(a + q[i] - x, b + q[i + 1] - y, c + q[i + 2] - z);
            // Fades out at 1.5, where points of cells outside the search could begin to count.
            const w = 1 - d / 1.5;
            if (w > 0) sum += Math.exp(-SHARP * d) * w * w;
          }
        }
      }
      return (Math.min(1.5, -Math.log(sum + 1e-12) / SHARP) - mean) * SPREAD;
    };
  },
};
