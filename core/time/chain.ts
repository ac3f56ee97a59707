import type { Spring } from './spring';

/** A periodic signal as harmonics: a mean and waves of one, two, three… turns per loop. */
export interface Harmonics {
  /** Complex amplitudes c₀…c_{M/2−1}: x(t) = Re(c₀ + 2 Σ c_h e^{2πiht}). */
  readonly re: Float64Array;
  readonly im: Float64Array;
  /** Amplitude of the largest wave, the mean aside. */
  readonly largest: number;
}

/**
 * Harmonics of a signal sampled at M even points of a loop, M a power of two, by the fast Fourier transform (J. W.
 * Cooley & J. W. Tukey, 1965).
 */
export function harmonicsOf(samples: Float64Array): Harmonics {
  const n = samples.length;
  const re = new Float64Array(n);
  const im = new Float64Array(n);
  const bits = Math.log2(n);
  for (let i = 0; i < n; i++) {
    let r = 0;
    for (let b = 0; b < bits; b++) r |= ((i >> b) & 1) << (bits - 1 - b);
    re[r] = samples[i];
  }
  for (let size = 2; size <= n; size *= 2)
    for (let start = 0; start < n; start += size)
      for (let k = 0; k < size / 2; k++) {
        const a = (-2 * Math.PI * k) / size;
        const [c, s] = [Math.cos(a), Math.sin(a)];
        const [p, q] = [start + k, start + k + size / 2];
        const [x, y] = [re[q] * c - im[q] * s, re[q] * s + im[q] * c];
        [re[q], im[q]] = [re[p] - x, im[p] - y];
        re[p] += x;
        im[p] += y;
      }
  const half = n / 2;
  let largest = 0;
  for (let h = 1; h < half; h++) largest = Math.max(largest, Math.hypot(re[h], im[h]) / n);
  return { re: re.slice(0, half).map((x) => x / n), im: im.slice(0, half).map((x) => x / n), largest };
}

/**
 * Frequency response of a damped spring at h turns per loop: H = ω₀² / (ω₀² − ω² + 2iζω₀ω), as gain and phase in
 * radians (any textbook on vibration, e.g. Den Hartog, Mechanical Vibrations).
 */
export function responseAt({ swings, damping }: Spring, h: number): { gain: number; phase: number } {
  const r = h / swings;
  const [a, b] = [1 - r * r, 2 * damping * r];
  return { gain: 1 / Math.hypot(a, b), phase: -Math.atan2(b, a) };
}

/** Waves smaller than this share of the largest are dropped. */
const FAINT = 1e-7;

/**
 * Motion of the k-th in a chain of followers, each hung by the same spring on the one before it and each delayed: the
 * driver's harmonics times H^k. This is the one periodic solution; nothing has to settle.
 *
 * @param links k, any real number ≥ 0; 0 is the driver itself
 * @param share position in the loop, 0…1; identical to the last bit at f = 0 and f = N
 */
export function chainAt(driver: Harmonics, spring: Spring, links: number, share: number): number {
  const { re, im, largest: most } = driver;
  let sum = re[0];
  if (most === 0) return sum;
  for (let h = 1; h < re.length; h++) {
    const size = Math.hypot(re[h], im[h]);
    if (size < FAINT * most) continue;
    const { gain, phase } = responseAt(spring, h);
    const g = gain ** links;
    if (size * g < FAINT * most) continue;
    const a = 2 * Math.PI * h * share + phase * links;
    sum += 2 * g * (re[h] * Math.cos(a) - im[h] * Math.sin(a));
  }
  return sum;
}

/** Upper bound of the k-th follower's swing: the sum of its amplitudes. Infinity if it overflows. */
export function swingOf(driver: Harmonics, spring: Spring, links: number): number {
  let sum = 0;
  for (let h = 1; h < driver.re.length; h++) {
    const size = Math.hypot(driver.re[h], driver.im[h]);
    if (size >= FAINT * driver.largest && size > 0) sum += 2 * size * responseAt(spring, h).gain ** links;
  }
  return sum;
}
