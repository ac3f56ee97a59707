type Triple = readonly [number, number, number];

/** How a particle flies by itself: v′ = g − d·v, with v₀ at its birth; per loop. */
export interface Flight {
  readonly speed: Triple;
  readonly gravity: Triple;
  /** d ≥ 0. */
  readonly drag: number;
}

/**
 * (1 − e^{−x})/x and (x − 1 + e^{−x})/x², also where x is next to nothing: the shares of a way that
 * drag leaves of speed and of gravity.
 */
export function dragShares(x: number): [number, number] {
  // Below this the differences would lose their digits; the series is exact there.
  if (x < 1e-3) return [1 - x / 2 + (x * x) / 6, 0.5 - x / 6 + (x * x) / 24];
  const lost = -Math.expm1(-x);
  return [lost / x, (x - lost) / (x * x)];
}

/** Way from the place of birth after an age in loops, exactly: x = v₀·a·φ₁ + g·a²·φ₂ (linear drag, any textbook on mechanics). */
export function flown({ speed, gravity, drag }: Flight, age: number, k: 0 | 1 | 2): number {
  const [one, two] = dragShares(drag * age);
  return speed[k] * age * one + gravity[k] * age * age * two;
}

/** Speed after an age, per loop. */
export function speedAt({ speed, gravity, drag }: Flight, age: number, k: 0 | 1 | 2): number {
  const [one] = dragShares(drag * age);
  return speed[k] * Math.exp(-drag * age) + gravity[k] * age * one;
}
