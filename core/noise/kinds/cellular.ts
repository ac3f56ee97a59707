import type { Clock } from '../../time/loop';
import { randomSource } from '../../time/random';
import type { NoiseKind } from '../kind';
import { permutation } from '../permutation';
import { swayAngles } from '../sway';

/** Mean of F1 over space for one point a cell, measured; the test holds it. */
const MEAN = 0.5255;
const SPREAD = 1.5;
/** Closer to 1: more evenly spread points; below 1: they turn round softly at the cell's edge. */
const SOFT = 0.97;

/**
 * The 256 feature points at one moment, 3 coordinates in 0…1 each. A coordinate runs to and fro
 * across its cell, ½ + asin(s·sin α)/(2·asin s): a triangle wave with rounded tips, so points are
 * spread almost evenly over the cell at every moment, and move without a jolt.
 */
function featurePoints(seed: number, rate: number, clock: Clock): Float64Array {
  const random = randomSource(seed + 211);
  const sway = swayAngles(256 * 3, seed + 307, rate, clock);
  const points = new Float64Array(256 * 3);
  const full = 2 * Math.asin(SOFT);
  for (let i = 0; i < points.length; i++)
    points[i] = 0.5 + Math.asin(SOFT * Math.sin(2 * Math.PI * random() + sway[i])) / full;
  return points;
}

/**
 * Distance to the nearest feature point, F1, Euclidean (S. Worley, "A Cellular Texture Basis
 * Function", SIGGRAPH 1996), with one point in each unit cell that moves on a closed path.
 */
export const cellular: NoiseKind = {
  kind: 'cellular',
  title: 'Cellular',
  help: 'Rounded dimples round scattered points.',
  field(seed, rate, clock) {
    const p = permutation(seed);
    const q = featurePoints(seed, rate, clock);
    const nearest = (x: number, y: number, z: number, reach: number): number => {
      const fx = Math.floor(x);
      const fy = Math.floor(y);
      const fz = Math.floor(z);
      x -= fx;
      y -= fy;
      z -= fz;
      let i = p[p[p[fx & 255] + (fy & 255)] + (fz & 255)] * 3;
      let dx = q[i] - x;
      let dy = q[i + 1] - y;
      let dz = q[i + 2] - z;
      let best = dx * dx + dy * dy + dz * dz;
      for (let a = -reach; a <= reach; a++) {
        const gx = a < 0 ? x - a - 1 : a > 0 ? a - x : 0;
        const gx2 = gx * gx;
        if (gx2 >= best) continue;
        const hx = p[(fx + a) & 255];
        for (let b = -reach; b <= reach; b++) {
          const gy = b < 0 ? y - b - 1 : b > 0 ? b - y : 0;
          const gy2 = gx2 + gy * gy;
          if (gy2 >= best) continue;
          const hy = p[hx + ((fy + b) & 255)];
          for (let c = -reach; c <= reach; c++) {
            const gz = c < 0 ? z - c - 1 : c > 0 ? c - z : 0;
            if (gy2 + gz * gz >= best) continue;
            i = p[hy + ((fz + c) & 255)] * 3;
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
      // Only a point farther than a cell can have a nearer one outside the 27 cells.
      if (best > 1) best = nearest(x, y, z, 2);
      return (Math.sqrt(best) - MEAN) * SPREAD;
    };
  },
};
