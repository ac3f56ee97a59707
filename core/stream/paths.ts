import { hermite, hermiteSlope } from '../maths/hermite';
import { dragShares, type Flight } from './flight';

/** Factors of speed and gravity without drag. */
const PLAIN: readonly [number, number] = [1, 0.5];

/** Velocities of a current in metres per loop at positions, 3 numbers each, at a time in loops. */
export type Current = (points: Float32Array, time: number) => Float32Array;

/** A particle at its birth. */
export interface Birth {
  /** Loops since the beginning; any real number ≥ 0. */
  readonly time: number;
  readonly at: readonly [number, number, number];
  readonly flight: Flight;
  /** How long its path is needed, in loops. */
  readonly life: number;
}

/** Position and velocity of particles by age. */
export interface Paths {
  /** Writes the position of particle i at an age in loops, followed by its velocity if asked for: 6 numbers. */
  at(i: number, age: number, out: Float64Array, velocity?: boolean): void;
}

/** Without a current, paths have a closed form. */
export function freePaths(births: readonly Birth[]): Paths {
  return {
    at(i, age, out, velocity = true) {
      const { at, flight } = births[i];
      const { speed, gravity, drag } = flight;
      const [one, two] = drag === 0 ? PLAIN : dragShares(drag * age);
      const kept = velocity && drag > 0 ? Math.exp(-drag * age) : 1;
      for (let k = 0; k < 3; k++) {
        out[k] = at[k] + speed[k] * age * one + gravity[k] * age * age * two;
        if (velocity) out[3 + k] = speed[k] * kept + gravity[k] * age * one;
      }
    },
  };
}

/**
 * In a current, x′ = v(a) + u(x, t) with v in closed form. The classical fourth-order Runge–Kutta method (W. Kutta,
 * 1901) steps along one time grid that all particles share, so that the current is evaluated for all at once; a
 * particle's first step leads from its birth to the grid. Between grid times a path is its cubic Hermite curve, whose
 * error is of the same order.
 *
 * @param perLoop grid times per loop
 */
export function carriedPaths(births: readonly Birth[], current: Current, perLoop: number): Paths {
  const n = births.length;
  const h = 1 / perLoop;
  const first = new Int32Array(n);
  const steps = new Int32Array(n);
  const offset = new Float64Array(n + 1);
  const times = Float64Array.from(births, (b) => b.time);
  let last = 0;
  for (let i = 0; i < n; i++) {
    first[i] = Math.ceil(births[i].time * perLoop - 1e-9);
    steps[i] = Math.max(1, Math.ceil((births[i].time + births[i].life) * perLoop + 1e-9) - first[i]);
    offset[i + 1] = offset[i] + 6 * (steps[i] + 3);
    last = Math.max(last, first[i] + steps[i]);
  }
  const states = new Float32Array(offset[n]);
  // A state is position and velocity; the next step's first stage computes the velocity.
  for (let i = 0; i < n; i++) states.set(births[i].at, offset[i]);
  const byGrid: number[][] = [];
  for (let i = 0; i < n; i++) (byGrid[first[i]] ??= []).push(i);

  /** One Runge–Kutta step of the particles `who`, from the state at `from` to the next. */
  const advance = (
    who: Int32Array,
    from: (i: number) => number,
    begin: (i: number) => number,
    step: (i: number) => number,
    field: (points: Float32Array, part: number) => Float32Array,
  ) => {
    const m = who.length;
    if (m === 0) return;
    const x = new Float32Array(3 * m);
    const sum = new Float64Array(3 * m);
    const at = new Float32Array(3 * m);
    for (let j = 0; j < m; j++) for (let k = 0; k < 3; k++) x[3 * j + k] = states[from(who[j]) + k];
    at.set(x);
    for (let stage = 0; stage < 4; stage++) {
      const part = stage === 0 ? 0 : stage === 3 ? 1 : 0.5;
      const u = field(at, part);
      for (let j = 0; j < m; j++) {
        const i = who[j];
        const h = step(i);
        const age = Math.max(0, begin(i) - times[i] + part * h);
        const { speed, gravity, drag } = births[i].flight;
        // What drag leaves of the initial speed, and of the speed due to gravity.
        const kept = drag === 0 ? 1 : Math.exp(-drag * age);
        const pulled = drag === 0 ? age : drag * age < 1e-3 ? age * dragShares(drag * age)[0] : (1 - kept) / drag;
        const weight = stage === 0 || stage === 3 ? 1 / 6 : 1 / 3;
        const ahead = stage === 2 ? 1 : 0.5;
        for (let k = 0; k < 3; k++) {
          const v = u[3 * j + k] + speed[k] * kept + gravity[k] * pulled;
          if (stage === 0) states[from(i) + 3 + k] = v;
          sum[3 * j + k] += weight * h * v;
          if (stage < 3) at[3 * j + k] = x[3 * j + k] + ahead * h * v;
        }
      }
    }
    for (let j = 0; j < m; j++)
      for (let k = 0; k < 3; k++) states[from(who[j]) + 6 + k] = x[3 * j + k] + sum[3 * j + k];
  };

  /** The current at a separate time for each particle, by the parabola through three moments of a step. */
  const between = (points: Float32Array, g: number, place: (j: number) => number): Float32Array => {
    const [a, b, c] = [-1, -0.5, 0].map((d) => current(points, (g + d) * h));
    for (let j = 0; j < points.length / 3; j++) {
      const t = place(j);
      const [p, q, r] = [(2 * t - 1) * (t - 1), 4 * t * (1 - t), t * (2 * t - 1)];
      for (let k = 3 * j; k < 3 * j + 3; k++) a[k] = p * a[k] + q * b[k] + r * c[k];
    }
    return a;
  };

  let alive: number[] = [];
  for (let g = 0; g <= last; g++) {
    const born = Int32Array.from(byGrid[g] ?? []);
    // From its birth each has its own time to the grid.
    const lead = (i: number) => g * h - births[i].time;
    advance(
      born,
      (i) => offset[i],
      (i) => births[i].time,
      lead,
      (points, part) => between(points, g, (j) => 1 - (lead(born[j]) / h) * (1 - part)),
    );
    // One step beyond the last state needed, for the velocity there.
    alive = alive.filter((i) => g <= first[i] + steps[i]).concat([...born]);
    const who = Int32Array.from(alive);
    advance(
      who,
      (i) => offset[i] + 6 * (g - first[i] + 1),
      () => g * h,
      () => h,
      (points, part) => current(points, (g + part) * h),
    );
  }
  return {
    at(i, age, out, velocity = true) {
      const t = times[i] + age;
      const lead = first[i] * h - times[i];
      const inLead = age < lead;
      const cell = Math.min(steps[i] - 1, Math.max(0, Math.floor(t * perLoop + 1e-9) - first[i]));
      const o = offset[i] + (inLead ? 0 : 6 * (cell + 1));
      const span = inLead ? lead : h;
      const x = (inLead ? age : t - (first[i] + cell) * h) / span;
      stateAt(states, o, span, x, out, velocity);
    },
  };
}

/** Position and velocity between two states, by the cubic Hermite curve. */
function stateAt(s: Float32Array, o: number, span: number, x: number, out: Float64Array, velocity: boolean): void {
  for (let k = 0; k < 3; k++) {
    const p = s[o + k];
    const a = s[o + 3 + k] * span;
    const b = s[o + 9 + k] * span;
    const rise = s[o + 6 + k] - p;
    out[k] = hermite(p, rise, a, b, x);
    if (velocity) out[3 + k] = hermiteSlope(rise, a, b, x) / span;
  }
}
