import { totalOf } from './layers';
import { closedCourse, type Prepared } from './motion';
import type { Clock } from './loop';
import { splitTime } from './phase';

/** A damped linear spring: x″ + 2ζω₀x′ + ω₀²x = ω₀²u, in units of one loop. */
export interface Spring {
  /** Undamped swings per loop: ω₀ / 2π, > 0. */
  readonly swings: number;
  /** ζ: 1 is critical, below 1 overshoots. Above 0, or it might swing forever. */
  readonly damping: number;
}

/** State after a time h without force, as a 2 × 2 matrix exponential. */
function propagator(omega: number, zeta: number, h: number): [number, number, number, number] {
  const s = zeta * omega;
  const d = omega * omega - s * s;
  let c: number;
  let k: number;
  if (d > 1e-12 * omega * omega) {
    const r = Math.sqrt(d);
    [c, k] = [Math.cos(r * h), Math.sin(r * h) / r];
  } else if (d < -1e-12 * omega * omega) {
    const r = Math.sqrt(-d);
    [c, k] = [Math.cosh(r * h), Math.sinh(r * h) / r];
  } else [c, k] = [1, h];
  const e = Math.exp(-s * h);
  return [e * (c + s * k), e * k, -e * omega * omega * k, e * (c - s * k)];
}

const SAMPLES = 2048;

/**
 * Positions of the periodic solution of a spring under a periodic driver that is linear between even points.
 *
 * @param drive the driver at the points of one period, the first not repeated
 * @param h time between points, in loops
 */
export function periodicResponse(drive: Float64Array, h: number, spring: Spring): Float64Array {
  const count = drive.length;
  const omega = 2 * Math.PI * spring.swings;
  const zeta = Math.max(0.005, spring.damping);
  const lag = (2 * zeta) / omega;
  const step = propagator(omega, zeta, h);
  const advance = (i: number, x: number, v: number): [number, number] => {
    const [u, m] = [drive[i], (drive[(i + 1) % count] - drive[i]) / h];
    const [dx, dv] = [x - u + lag * m, v - m];
    return [u - lag * m + m * h + step[0] * dx + step[1] * dv, m + step[2] * dx + step[3] * dv];
  };
  let [x, v] = periodicStart(advance, count, propagator(omega, zeta, count * h));
  const out = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    out[i] = x;
    [x, v] = advance(i, x, v);
  }
  return out;
}

/**
 * The state that a whole period returns to: one period is an affine map with offset w, and (I − Φ)⁻¹w is its fixed
 * point.
 */
function periodicStart(
  advance: (i: number, x: number, v: number) => [number, number],
  count: number,
  all: readonly number[],
): [number, number] {
  let [wx, wv] = [0, 0];
  for (let i = 0; i < count; i++) [wx, wv] = advance(i, wx, wv);
  const [a, b, c, d] = [1 - all[0], -all[1], -all[2], 1 - all[3]];
  const det = a * d - b * c;
  return [(d * wx - b * wv) / det, (a * wv - c * wx) / det];
}

/**
 * Periodic response of a spring to a periodic driver: not a simulation that settles, but the one solution that ends as
 * it began. The driver is linear between 2048 points of a loop; between them the equation is solved in closed form, and
 * the initial state is the fixed point (I − Φ)⁻¹w. A steady gain of the driver is followed with the constant lag 2ζ/ω₀
 * of a ramp (any textbook on vibration).
 */
export function springResponse(driver: Prepared, spring: Spring, frames: number): Prepared {
  const { course } = driver;
  const loops = course.open ? 1 : course.turns.den;
  const count = SAMPLES * Math.min(4, loops);
  const h = loops / count;
  const omega = 2 * Math.PI * spring.swings;
  const zeta = Math.max(0.005, spring.damping);
  const perLoop = course.open ? 0 : course.adds / loops;
  const drive = new Float64Array(count + 1);
  for (let i = 0; i < count; i++) {
    const clock: Clock = { frame: (i * loops * frames) / count, frames };
    drive[i] = totalOf(driver, clock) - perLoop * i * h;
  }
  drive[count] = drive[0];

  // A linear driver u₀ + mτ is followed by u₀ − 2ζm/ω₀ + mτ; the rest decays freely.
  const lag = (2 * zeta) / omega;
  const step = propagator(omega, zeta, h);
  const particular = (i: number) => {
    const m = (drive[i + 1] - drive[i]) / h;
    return { x: drive[i] - lag * m, m };
  };
  const advance = (i: number, x: number, v: number): [number, number] => {
    const p = particular(i);
    const [dx, dv] = [x - p.x, v - p.m];
    return [p.x + p.m * h + step[0] * dx + step[1] * dv, p.m + step[2] * dx + step[3] * dv];
  };
  const states = new Float64Array(2 * count);
  let [x, v] = periodicStart(advance, count, propagator(omega, zeta, loops));
  for (let i = 0; i < count; i++) {
    states[2 * i] = x;
    states[2 * i + 1] = v;
    [x, v] = advance(i, x, v);
  }

  const at = (clock: Clock): { x: number; v: number } => {
    const place = splitTime(clock, loops).frame / frames;
    const i = Math.min(count - 1, Math.floor(place / h));
    const tau = place - i * h;
    const p = particular(i);
    const [dx, dv] = [states[2 * i] - p.x, states[2 * i + 1] - p.m];
    const m = propagator(omega, zeta, tau);
    return {
      x: p.x + p.m * tau + m[0] * dx + m[1] * dv + perLoop * (place - lag),
      v: p.m + m[2] * dx + m[3] * dv + perLoop,
    };
  };
  return {
    course: course.open
      ? { ...course, sharp: false }
      : { ...closedCourse(course.turns), adds: course.adds, by: course.by },
    base: (clock) => at(clock).x,
    speed: (clock) => at(clock).v / frames,
  };
}
