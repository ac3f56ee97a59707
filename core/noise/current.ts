import { kernels } from '../kernels/kernels';
import type { Clock } from '../time/loop';
import { gradientTable } from './gradients';
import { permutation } from './permutation';
import { layersOf } from './noise';

/** Settings of a swirling velocity field. */
export interface CurrentSettings {
  /** Size of its swirls in metres, > 0. */
  readonly scale: number;
  readonly octaves: number;
  readonly seed: number;
  readonly rate: number;
}

/** Below this many points, plain TypeScript finishes before buffers would be copied. */
const LEAST = 24;

/**
 * A divergence-free velocity field: the curl of three potentials of gradient noise (R. Bridson, J. Hourihan & M.
 * Nordenstam, “Curl-noise for procedural fluid flow”, SIGGRAPH 2007), by their exact derivatives. The potentials share
 * one lattice, so that one look-up serves all three, but have separate gradients.
 *
 * @returns a function from points, 3 numbers each in metres, to as many velocities, of the order of 1
 */
export function curlCurrent(
  { scale, octaves, seed, rate }: CurrentSettings,
  clock: Clock,
): (points: Float32Array) => Float32Array {
  const { layers } = layersOf({ kind: 'gradient', octaves, seed });
  const made = layers.map((l) => ({ ...l, perm: permutation(l.seed), table: threeGradients(l.seed, rate, clock) }));
  return (points) => {
    const count = points.length / 3;
    const k = count >= LEAST ? kernels() : null;
    if (!k) {
      const out = new Float32Array(points.length);
      for (const l of made)
        addCurl(points, l.frequency / scale, l.offset, l.perm, l.table, l.weight * l.frequency, out);
      return out;
    }
    k.begin();
    const at = k.put(points);
    const out = k.room(12 * count, true);
    for (const l of made)
      k.run.curl(
        at,
        count,
        k.put(Float64Array.from([l.frequency / scale, ...l.offset])),
        k.keep(l.perm),
        k.put(l.table),
        l.weight * l.frequency,
        out,
      );
    return k.take(out, 3 * count);
  };
}

/**
 * Three gradients for each of 256 lattice numbers, 4 numbers each, the last 0. Each table is shuffled, so that they are
 * uncorrelated even where none of them moves.
 */
function threeGradients(seed: number, rate: number, clock: Clock): Float32Array {
  const out = new Float32Array(256 * 12);
  for (let p = 0; p < 3; p++) {
    const gradients = gradientTable(seed + 7919 * p, rate, clock);
    const shuffled = permutation(seed + 104_729 * (p + 1));
    for (let i = 0; i < 256; i++) for (let k = 0; k < 3; k++) out[12 * i + 4 * p + k] = gradients[3 * shuffled[i] + k];
  }
  return out;
}

const fade = (x: number) => x * x * x * (x * (x * 6 - 15) + 10);
const fadeSlope = (x: number) => 30 * x * x * (x * (x - 2) + 1);

/** The reference in plain TypeScript: adds `weight` times the curl at the points. */
function addCurl(
  points: Float32Array,
  factor: number,
  offset: readonly [number, number, number],
  perm: Uint8Array,
  table: Float32Array,
  weight: number,
  out: Float32Array,
): void {
  const slopes = new Float64Array(9);
  for (let i = 0; i < points.length; i += 3) {
    const at = [0, 1, 2].map((k) => points[i + k] * factor + offset[k]);
    const cell = at.map(Math.floor);
    const f = at.map((x, k) => x - cell[k]);
    const [X, Y, Z] = cell.map((c) => c & 255);
    slopes.fill(0);
    for (let c = 0; c < 8; c++) {
      const step = [c & 1, (c >> 1) & 1, c >> 2];
      const entry = 12 * perm[perm[perm[X + step[0]] + Y + step[1]] + Z + step[2]];
      const w = step.map((s, k) => (s ? fade(f[k]) : 1 - fade(f[k])));
      const dw = step.map((s, k) => (s ? fadeSlope(f[k]) : -fadeSlope(f[k])));
      for (let p = 0; p < 3; p++) {
        const g = entry + 4 * p;
        const rise = table[g] * (f[0] - step[0]) + table[g + 1] * (f[1] - step[1]) + table[g + 2] * (f[2] - step[2]);
        for (let k = 0; k < 3; k++) {
          const others = w[(k + 1) % 3] * w[(k + 2) % 3];
          slopes[3 * p + k] += others * (w[k] * table[g + k] + dw[k] * rise);
        }
      }
    }
    for (let k = 0; k < 3; k++) {
      const [u, v] = [(k + 1) % 3, (k + 2) % 3];
      out[i + k] += weight * (slopes[3 * v + u] - slopes[3 * u + v]);
    }
  }
}
