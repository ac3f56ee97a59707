import type { Clock } from '../time/loop';
import { randomSource, randomUnitVector } from '../maths/random';
import { USUAL_NOISE, type Field, type NoiseOptions } from './kind';
import { permutation } from './permutation';
import { swayAngles } from './sway';

/** The sixteen directions of improved noise: the twelve edges of a cube, four of them twice. */
const EDGES = Float64Array.from([
  1, 1, 0, -1, 1, 0, 1, -1, 0, -1, -1, 0, 1, 0, 1, -1, 0, 1, 1, 0, -1, -1, 0, -1, 0, 1, 1, 0, -1, 1, 0, 1, -1, 0, -1,
  -1, 1, 1, 0, 0, -1, 1, -1, 1, 0, 0, -1, -1,
]);

/** Rotates v about the unit axis at `o` in `k` by an angle (Rodrigues' formula), in place. */
function rotate(v: [number, number, number], k: Float64Array, o: number, angle: number): void {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  const [a, b, d] = [k[o], k[o + 1], k[o + 2]];
  const dot = (v[0] * a + v[1] * b + v[2] * d) * (1 - c);
  const x = v[0] * c + (b * v[2] - d * v[1]) * s + a * dot;
  const y = v[1] * c + (d * v[0] - a * v[2]) * s + b * dot;
  v[2] = v[2] * c + (a * v[1] - b * v[0]) * s + d * dot;
  v[0] = x;
  v[1] = y;
}

/**
 * The 256 lattice gradients at one moment, 3 numbers each.
 *
 * Rotating the gradients is known as flow noise (K. Perlin & F. Neyret, SIGGRAPH 2001). Here each gradient turns about
 * two axes of its own by closed wandering angles, so that the pattern changes without repeating inside the loop, and at
 * every moment is ordinary gradient noise with gradients of length √2.
 */
export function gradientTable(seed: number, rate: number, clock: Clock): Float64Array {
  const key = `${seed}/${rate}/${clock.frame}/${clock.frames}/${clock.loops ?? 0}`;
  let table = tables.get(key);
  if (!table) {
    // A few moments are cached: several readers often ask for the same one.
    if (tables.size >= 48) tables.clear();
    tables.set(key, (table = makeTable(seed, rate, clock)));
  }
  return table;
}

const tables = new Map<string, Float64Array>();
const axes = new Map<number, Float64Array>();

/** The two axes about which each of the 256 gradients turns, 6 numbers each. */
function axesOf(seed: number): Float64Array {
  let own = axes.get(seed);
  if (!own) {
    if (axes.size >= 64) axes.clear();
    const random = randomSource(seed + 101);
    own = new Float64Array(6 * 256);
    for (let i = 0; i < 512; i++) own.set(randomUnitVector(random), 3 * i);
    axes.set(seed, own);
  }
  return own;
}

function makeTable(seed: number, rate: number, clock: Clock): Float64Array {
  const table = new Float64Array(256 * 3);
  const first = swayAngles(256, seed * 2 + 1, rate, clock);
  const second = swayAngles(256, seed * 2 + 2, rate, clock);
  const own = axesOf(seed);
  const v: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < 256; i++) {
    const e = (i & 15) * 3;
    v[0] = EDGES[e];
    v[1] = EDGES[e + 1];
    v[2] = EDGES[e + 2];
    if (rate !== 0) {
      rotate(v, own, 6 * i, first[i]);
      rotate(v, own, 6 * i + 3, second[i]);
    }
    table.set(v, i * 3);
  }
  return table;
}

export type { Field } from './kind';

/**
 * Gradient noise at one moment of the loop: trilinear blend, with the quintic fade, of the eight lattice gradients (K.
 * Perlin, “Improving Noise”, 2002). With seed 0 and rate 0 it equals the published reference function exactly. Lattice
 * period mask + 1.
 */
export function gradientField(
  seed: number,
  rate: number,
  clock: Clock,
  { mask }: Pick<NoiseOptions, 'mask'> = USUAL_NOISE,
): Field {
  const p = permutation(seed);
  const g = gradientTable(seed, rate, clock);
  return (x, y, z) => {
    const fx = Math.floor(x);
    const fy = Math.floor(y);
    const fz = Math.floor(z);
    const X = fx & mask;
    const Y = fy & mask;
    const Z = fz & mask;
    const X1 = (X + 1) & mask;
    const Y1 = (Y + 1) & mask;
    const Z1 = (Z + 1) & mask;
    x -= fx;
    y -= fy;
    z -= fz;
    const u = x * x * x * (x * (x * 6 - 15) + 10);
    const v = y * y * y * (y * (y * 6 - 15) + 10);
    const w = z * z * z * (z * (z * 6 - 15) + 10);
    const A = p[X];
    const B = p[X1];
    const AA = p[A + Y];
    const AB = p[A + Y1];
    const BA = p[B + Y];
    const BB = p[B + Y1];
    const x1 = x - 1;
    const y1 = y - 1;
    const z1 = z - 1;
    let i = p[AA + Z] * 3;
    const n000 = g[i] * x + g[i + 1] * y + g[i + 2] * z;
    i = p[BA + Z] * 3;
    const n100 = g[i] * x1 + g[i + 1] * y + g[i + 2] * z;
    i = p[AB + Z] * 3;
    const n010 = g[i] * x + g[i + 1] * y1 + g[i + 2] * z;
    i = p[BB + Z] * 3;
    const n110 = g[i] * x1 + g[i + 1] * y1 + g[i + 2] * z;
    i = p[AA + Z1] * 3;
    const n001 = g[i] * x + g[i + 1] * y + g[i + 2] * z1;
    i = p[BA + Z1] * 3;
    const n101 = g[i] * x1 + g[i + 1] * y + g[i + 2] * z1;
    i = p[AB + Z1] * 3;
    const n011 = g[i] * x + g[i + 1] * y1 + g[i + 2] * z1;
    i = p[BB + Z1] * 3;
    const n111 = g[i] * x1 + g[i + 1] * y1 + g[i + 2] * z1;
    const a = n000 + u * (n100 - n000);
    const b = n010 + u * (n110 - n010);
    const c = n001 + u * (n101 - n001);
    const d = n011 + u * (n111 - n011);
    const e = a + v * (b - a);
    return e + w * (c + v * (d - c) - e);
  };
}
