import type { Copies } from '../../shape/mesh';
import { chainAt, harmonicsOf, swingOf, type Harmonics } from '../../time/chain';
import { chanceOf } from '../../time/chance';
import { splitTime } from '../../time/phase';
import type { Spring } from '../../time/spring';
import type { Evaluated, Params } from '../../declare/params';
import { brief, formatCount, StepProblem, type StepContext } from '../step';
import { numbersOf, ordersOf } from './vary-weights';

export interface Lag {
  readonly behind: number;
  readonly scattered: number;
  /** 'before' is resolved when a piece is linked; without an earlier Vary there are no springs. */
  readonly springy: 'no' | 'all' | 'chain' | 'before';
  readonly swings: number;
  readonly damping: number;
  readonly one: 'copy' | 'group';
  readonly seed: number;
}

const SAMPLES = 512;
/** Above this many copies, their times are rounded to a 4096th of the loop. */
const MANY = 2000;
/** Beyond this, in metres, degrees or factors, a chain no longer has a shape. */
const MOST_SWING = 1e6;

const springs = (v: Lag) => v.springy === 'all' || v.springy === 'chain';

/** Whether copies follow late or on springs. */
export function lags(v: Lag): boolean {
  return v.behind !== 0 || v.scattered !== 0 || springs(v);
}

/** Delay of each copy against the values, as a fraction of the loop. */
export function latenessOf(v: Lag, copies: Copies): (i: number) => number {
  const { order } = ordersOf(copies, v.one);
  const chance = chanceOf(v.seed + 91);
  const number = numbersOf(copies, v.one);
  const fine = copies.source.length > MANY;
  return (i) => {
    const late = (v.behind * order[i] + (v.scattered === 0 ? 0 : v.scattered * chance(number(i)))) / 100;
    return fine ? Math.round(late * 4096) / 4096 : late;
  };
}

/**
 * The values that each copy follows at its own time and on its own springs, numbers in sequence. Copies whose times and
 * springs coincide share them.
 */
export function followed(
  v: Lag,
  names: readonly string[],
  now: Evaluated<Params>,
  copies: Copies,
  context: StepContext,
  numbers: Numbers = flat,
): (i: number) => readonly number[] {
  const plain = numbers(names, now);
  if (!lags(v) || !context.valuesAt) return () => plain;
  const valuesAt = context.valuesAt;
  const late = latenessOf(v, copies);
  const { order } = ordersOf(copies, v.one);
  const { clock } = context;
  const { frame, cycles } = splitTime(clock);
  const here = frame / clock.frames;
  const known = new Map<string, readonly number[]>();
  const courses = springs(v) ? responsesOf(names, context, numbers) : null;
  const spring = { swings: v.swings, damping: Math.max(0.005, v.damping / 100) };
  if (courses && v.springy === 'chain') {
    const last = order.reduce((a, b) => Math.max(a, b), 0);
    const swing = farthestSwing(courses, spring, last);
    if (!(swing <= MOST_SWING))
      throw new StepProblem(
        `With a Damping of ${brief(v.damping)} % each copy swings farther than the one before, and the last of ` +
          `${formatCount(last + 1)} would be thrown out of all bounds; use 71 % or more, another Stiffness, or ` +
          'fewer copies in the chain.',
      );
  }
  // Gain per loop is followed with the constant lag of a ramp, 2ζ/ω₀ for every spring.
  const lag = (2 * spring.damping) / (2 * Math.PI * v.swings);
  return (i) => {
    const links = v.springy === 'chain' ? order[i] : 1;
    const place = here - late(i);
    if (!courses && place === here) return plain;
    const key = `${place}/${courses ? links : 0}`;
    let out = known.get(key);
    if (!out) {
      out = courses
        ? courses.map((s) => chainAt(s.waves, spring, links, place) + s.gain * (place - links * lag) + s.gain * cycles)
        : numbers(names, valuesAt(place, names));
      known.set(key, out);
    }
    return out;
  };
}

const swingsKnown = new WeakMap<readonly Course[], Map<string, number>>();

/** How far the last of a chain swings; computed once for a course, spring and number. */
function farthestSwing(courses: readonly Course[], spring: Spring, last: number): number {
  let own = swingsKnown.get(courses);
  if (!own) swingsKnown.set(courses, (own = new Map()));
  const key = `${spring.swings}/${spring.damping}/${last}`;
  let swing = own.get(key);
  if (swing === undefined) own.set(key, (swing = Math.max(...courses.map((c) => swingOf(c.waves, spring, last)))));
  return swing;
}

/** How values become numbers that can be followed. */
export type Numbers = (names: readonly string[], values: Evaluated<Params>) => number[];

function flat(names: readonly string[], values: Evaluated<Params>): number[] {
  return names.flatMap((name): readonly number[] => {
    const value: unknown = values[name];
    return Array.isArray(value) ? value : [Number(value)];
  });
}

interface Course {
  readonly waves: Harmonics;
  /** Gain per loop. */
  readonly gain: number;
}

const store = new Map<string, Course[]>();

/** The values round the loop as Fourier series; computed once per step as it is. */
function responsesOf(names: readonly string[], context: StepContext, numbers: Numbers): Course[] {
  const key = `${context.definition}/${names.join()}`;
  const hit = context.definition ? store.get(key) : undefined;
  if (hit) return hit;
  const rows = Array.from({ length: SAMPLES + 1 }, (_, i) => numbers(names, context.valuesAt!(i / SAMPLES, names)));
  const courses = rows[0].map((first, c): Course => {
    const samples = new Float64Array(SAMPLES);
    for (let i = 0; i < SAMPLES; i++) samples[i] = rows[i][c];
    const gain = rows[SAMPLES][c] - first;
    for (let i = 0; i < SAMPLES; i++) samples[i] -= (gain * i) / SAMPLES;
    return { waves: harmonicsOf(samples), gain };
  });
  if (store.size > 40) store.clear();
  store.set(key, courses);
  return courses;
}
