/**
 * The arithmetic that patterns are written in, over any type of number: JavaScript numbers in core, shader nodes on the
 * graphics card. A pattern is written once for all renderers.
 */
export interface Maths<N> {
  number(x: number): N;
  add(a: N, b: N): N;
  sub(a: N, b: N): N;
  mul(a: N, b: N): N;
  div(a: N, b: N): N;
  min(a: N, b: N): N;
  max(a: N, b: N): N;
  abs(a: N): N;
  floor(a: N): N;
  /** a − ⌊a⌋, 0 ≤ x < 1. */
  fract(a: N): N;
  sqrt(a: N): N;
  sin(a: N): N;
  cos(a: N): N;
  /** Angle of (x, y) in radians, −π…π. */
  atan2(y: N, x: N): N;
  /** a to the power of b, for a ≥ 0. */
  pow(a: N, b: N): N;
  /** `then` if a < b, otherwise `otherwise`. Both are evaluated. */
  less(a: N, b: N, then: N, otherwise: N): N;
  /** A uniform random number 0 ≤ x < 1 for an integer and a seed. */
  chance(id: N, seed: N): N;
}

/** Bits of a single-precision mantissa; random numbers have so many, and are then the same everywhere. */
const BITS = 24;

/** PCG hash of 32 bits (M. Jarzynski & M. Olano, “Hash Functions for GPU Rendering”, JCGT 9(3), 2020). */
export function pcg(x: number): number {
  const state = (Math.imul(x, 747796405) + 2891336453) >>> 0;
  const word = Math.imul((state >>> ((state >>> 28) + 4)) ^ state, 277803737) >>> 0;
  return ((word >>> 22) ^ word) >>> 0;
}

/** JavaScript numbers. */
export const plainMaths: Maths<number> = {
  number: (x) => x,
  add: (a, b) => a + b,
  sub: (a, b) => a - b,
  mul: (a, b) => a * b,
  div: (a, b) => a / b,
  min: Math.min,
  max: Math.max,
  abs: Math.abs,
  floor: Math.floor,
  fract: (a) => a - Math.floor(a),
  sqrt: Math.sqrt,
  sin: Math.sin,
  cos: Math.cos,
  atan2: Math.atan2,
  pow: Math.pow,
  less: (a, b, then, otherwise) => (a < b ? then : otherwise),
  chance: (id, seed) => (pcg((id + pcg(seed)) >>> 0) >>> (32 - BITS)) / 2 ** BITS,
};

/** a + (b − a) · t. */
export function mix<N>(m: Maths<N>, a: N, b: N, t: N): N {
  return m.add(a, m.mul(m.sub(b, a), t));
}

/** Clamps to 0…1. */
export function saturate<N>(m: Maths<N>, x: N): N {
  return m.max(m.number(0), m.min(m.number(1), x));
}

/** Hermite step 3t² − 2t³ from a to b, 0 before and 1 after; a jump if they coincide. */
export function smoothstep<N>(m: Maths<N>, a: N, b: N, x: N): N {
  const t = saturate(m, m.div(m.sub(x, a), m.max(m.sub(b, a), m.number(1e-6))));
  return m.mul(m.mul(t, t), m.sub(m.number(3), m.mul(m.number(2), t)));
}
