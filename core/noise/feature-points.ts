import type { Clock } from '../time/loop';
import { randomSource } from '../maths/random';
import { USUAL_NOISE, type Metric, type NoiseOptions } from './kind';
import { permutation } from './permutation';
import { swayAngles } from './sway';

/** Close to 1 spreads points most evenly; below 1 they turn round softly at the cell's edge. */
const SOFT = 0.97;

/**
 * The 256 feature points at one moment, 3 coordinates in 0…1 each. A coordinate oscillates across its cell, ½ +
 * asin(s·sin α)/(2·asin s), a triangle wave with rounded peaks: points are spread almost evenly over the cell at every
 * moment and move smoothly. Less jitter keeps them nearer to the centre.
 */
export function featurePoints(seed: number, rate: number, clock: Clock, jitter: number): Float64Array {
  const random = randomSource(seed + 211);
  const sway = swayAngles(256 * 3, seed + 307, rate, clock);
  const points = new Float64Array(256 * 3);
  const full = 2 * Math.asin(SOFT);
  for (let i = 0; i < points.length; i++)
    points[i] = 0.5 + (jitter * Math.asin(SOFT * Math.sin(2 * Math.PI * random() + sway[i]))) / full;
  return points;
}

/** Cellular noise at one place. Reused from call to call. */
export interface Cells {
  /** Distances to the nearest and second nearest feature point. */
  first: number;
  second: number;
  /** Number 0…255 of the cell's point that is nearest. */
  nearest: number;
}

const METRICS: Record<Metric, (x: number, y: number, z: number) => number> = {
  euclidean: (x, y, z) => x * x + y * y + z * z,
  manhattan: (x, y, z) => Math.abs(x) + Math.abs(y) + Math.abs(z),
  chebyshev: (x, y, z) => Math.max(Math.abs(x), Math.abs(y), Math.abs(z)),
};

/**
 * Finds the two nearest feature points of a place (S. Worley, “A Cellular Texture Basis Function”, SIGGRAPH 1996), with
 * one point in each unit cell, moving on a closed path. Euclidean distances are compared squared. A wider ring of cells
 * is searched only if it may hold a nearer point.
 */
export function cellFinder(
  seed: number,
  rate: number,
  clock: Clock,
  { mask, metric, jitter }: NoiseOptions = USUAL_NOISE,
): (x: number, y: number, z: number) => Cells {
  const p = permutation(seed);
  const q = featurePoints(seed, rate, clock, jitter);
  const distance = METRICS[metric];
  const euclidean = metric === 'euclidean';
  const out: Cells = { first: 0, second: 0, nearest: 0 };
  return (px, py, pz) => {
    const fx = Math.floor(px);
    const fy = Math.floor(py);
    const fz = Math.floor(pz);
    const x = px - fx;
    const y = py - fy;
    const z = pz - fz;
    let best = Infinity;
    let next = Infinity;
    let nearest = 0;
    for (let reach = 1; reach <= 3; reach++) {
      for (let a = -reach; a <= reach; a++) {
        const gx = a < 0 ? x - a - 1 : a > 0 ? a - x : 0;
        const hx = p[(fx + a) & mask];
        for (let b = -reach; b <= reach; b++) {
          const gy = b < 0 ? y - b - 1 : b > 0 ? b - y : 0;
          if (distance(gx, gy, 0) >= next) continue;
          const hy = p[hx + ((fy + b) & mask)];
          const shell = a === -reach || a === reach || b === -reach || b === reach;
          // Skips rings already searched; the first reach takes all 27 cells.
          const step = reach === 1 || shell ? 1 : 2 * reach;
          for (let c = -reach; c <= reach; c += step) {
            const gz = c < 0 ? z - c - 1 : c > 0 ? c - z : 0;
            if (distance(gx, gy, gz) >= next) continue;
            const n = p[hy + ((fz + c) & mask)];
            const d = distance(a + q[3 * n] - x, b + q[3 * n + 1] - y, c + q[3 * n + 2] - z);
            if (d < best) {
              next = best;
              best = d;
              nearest = n;
            } else if (d < next) next = d;
          }
        }
      }
      // Everything beyond the searched cells is at least `reach` away.
      if (next <= (euclidean ? reach * reach : reach)) break;
    }
    out.first = euclidean ? Math.sqrt(best) : best;
    out.second = euclidean ? Math.sqrt(next) : next;
    out.nearest = nearest;
    return out;
  };
}
