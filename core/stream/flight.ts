import type { Vec3 } from '../maths/vec3';

/** Free flight of a particle: v′ = g − d·v, with v₀ at birth; in loops. */
export interface Flight {
  readonly speed: Vec3;
  readonly gravity: Vec3;
  /** d ≥ 0. */
  readonly drag: number;
}

/**
 * (1 − e^{−x})/x and (x − 1 + e^{−x})/x², stable for tiny x: the factors by which drag reduces the distance due to
 * speed and to gravity.
 */
export function dragShares(x: number): [number, number] {
  // Below this the differences lose their digits; the series is exact there.
  if (x < 1e-3) return [1 - x / 2 + (x * x) / 6, 0.5 - x / 6 + (x * x) / 24];
  const lost = -Math.expm1(-x);
  return [lost / x, (x - lost) / (x * x)];
}
