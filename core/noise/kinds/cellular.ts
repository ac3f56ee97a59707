import type { Clock } from '../../time/loop';
import type { Field } from '../gradients';
import { cellFinder, featurePoints } from '../feature-points';
import { USUAL_NOISE, type NoiseKind, type NoiseOptions } from '../kind';
import { permutation } from '../permutation';

/** Mean of F1 over space for one point per cell, measured; a test holds it. */
export const CELLULAR_MEAN = 0.5255;
export const CELLULAR_SPREAD = 1.5;

/** The same for each distance metric. */
export const CELLULAR_BY = {
  euclidean: { mean: CELLULAR_MEAN, spread: CELLULAR_SPREAD },
  manhattan: { mean: 0.7716, spread: 1.1 },
  chebyshev: { mean: 0.4253, spread: 1.8 },
} as const;

/**
 * Euclidean distance to the nearest feature point, the commonest case and therefore the fastest: squared distances, and
 * cells skipped as soon as they cannot hold a nearer point.
 */
export function nearestDistance(seed: number, rate: number, clock: Clock, options: NoiseOptions = USUAL_NOISE): Field {
  const { mask } = options;
  const p = permutation(seed);
  const q = featurePoints(seed, rate, clock, options.jitter);
  const nearest = (x: number, y: number, z: number, reach: number): number => {
    const fx = Math.floor(x);
    const fy = Math.floor(y);
    const fz = Math.floor(z);
    x -= fx;
    y -= fy;
    z -= fz;
    let i = p[p[p[fx & mask] + (fy & mask)] + (fz & mask)] * 3;
    let dx = q[i] - x;
    let dy = q[i + 1] - y;
    let dz = q[i + 2] - z;
    let best = dx * dx + dy * dy + dz * dz;
    for (let a = -reach; a <= reach; a++) {
      const gx = a < 0 ? x - a - 1 : a > 0 ? a - x : 0;
      const gx2 = gx * gx;
      if (gx2 >= best) continue;
      const hx = p[(fx + a) & mask];
      for (let b = -reach; b <= reach; b++) {
        const gy = b < 0 ? y - b - 1 : b > 0 ? b - y : 0;
        const gy2 = gx2 + gy * gy;
        if (gy2 >= best) continue;
        const hy = p[hx + ((fy + b) & mask)];
        for (let c = -reach; c <= reach; c++) {
          const gz = c < 0 ? z - c - 1 : c > 0 ? c - z : 0;
          if (gy2 + gz * gz >= best) continue;
          i = p[hy + ((fz + c) & mask)] * 3;
          dx = a + q[i] - x;
          dy = b + q[i + 1] - y;
          dz = c + q[i + 2] - z;
          const d = dx * dx + dy * dy + dz * dz;
          if (d < best) best = d;
        }
      }
    }
    return best;
  };
  return (x, y, z) => {
    let best = nearest(x, y, z, 1);
    // Only a point farther than one cell can have a nearer one outside the 27 cells.
    if (best > 1) best = nearest(x, y, z, 2);
    return Math.sqrt(best);
  };
}

/**
 * Distance to the nearest feature point, F1 (S. Worley, “A Cellular Texture Basis Function”, SIGGRAPH 1996), with one
 * point in each unit cell, moving on a closed path.
 */
export const cellular: NoiseKind = {
  kind: 'cellular',
  title: 'Cellular',
  help: 'Rounded dimples round scattered points.',
  cellular: true,
  field(seed, rate, clock, options = USUAL_NOISE) {
    if (options.metric === 'euclidean') {
      const distance = nearestDistance(seed, rate, clock, options);
      return (x, y, z) => (distance(x, y, z) - CELLULAR_MEAN) * CELLULAR_SPREAD;
    }
    const find = cellFinder(seed, rate, clock, options);
    const { mean, spread } = CELLULAR_BY[options.metric];
    return (x, y, z) => (find(x, y, z).first - mean) * spread;
  },
};
