import { formula as formulaParam, number } from '../../declare/params';
import { compileFormula, type Compiled, type Moment } from '../formula/compile';
import { inferGoing } from '../formula/infer';
import { FormulaError, parseFormula, type Term } from '../formula/parse';
import { NO_PLACE, type Place } from '../formula/words';
import { defineMotion, type Course, type Prepared } from '../motion';
import { splitTime } from '../phase';
import { rational } from '../../maths/rational';

interface Read {
  readonly term: Term;
  readonly run: Compiled;
}

const known = new Map<string, Read | FormulaError>();

function read(text: string): Read | FormulaError {
  let hit = known.get(text);
  if (!hit) {
    try {
      const term = parseFormula(text);
      hit = { term, run: compileFormula(term) };
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      hit = error;
    }
    if (known.size > 2000) known.clear();
    known.set(text, hit);
  }
  return hit;
}

/** What is wrong with a formula, or null; also if it gives no number somewhere in the loop. */
export function formulaFault(text: string, frames = 100): FormulaError | null {
  const hit = read(text);
  if (hit instanceof FormulaError) return hit;
  for (let i = 0; i < 64; i++) {
    const t = i / 64;
    if (!Number.isFinite(hit.run({ t, f: t * frames, n: frames, ...NO_PLACE })))
      return new FormulaError(
        `This gives no number at t = ${Number(t.toFixed(3))}; look for a division by 0, or a root or logarithm of what is below it.`,
        0,
      );
  }
  return null;
}

/** Whether a formula depends on its copy. */
export function usesPlace(text: string): boolean {
  return /\b(order|count|seed)\b/.test(text);
}

/** Measures whether a function of time repeats, up to a gain, within a few loops. */
function measure(run: (t: number) => number): { loops: number; adds: number } | null {
  const places = Array.from({ length: 61 }, (_, i) => (i * 0.61803398875) % 1);
  for (let loops = 1; loops <= 12; loops++) {
    const gains = places.map((t) => run(t + loops) - run(t));
    const size = Math.max(...places.map((t) => Math.abs(run(t))), 1e-9);
    const first = gains[0];
    if (Number.isFinite(first) && gains.every((g) => Math.abs(g - first) <= 1e-9 * Math.max(size, Math.abs(first))))
      return { loops, adds: Math.abs(first) <= 1e-9 * size ? 0 : first };
  }
  return null;
}

export const formula = defineMotion({
  kind: 'formula',
  title: 'Formula',
  help: 'A formula of t, which goes from 0 to 1 round the loop.',
  ofValue: { otherwise: 'value' },
  // A formula of frames alone continues as it is.
  goesOn: (s) => /\bf\b/.test(s.text as string) && !/\b[tn]\b/.test(s.text as string),
  closing: (motion) => [
    {
      words: 'Begin anew each loop',
      help: 'Puts fract(t) in the place of t',
      motion: { ...motion, text: (motion.text as string).replace(/\bt\b/g, 'fract(t)').replace(/\bf\b/g, 'mod(f, n)') },
    },
  ],
  params: {
    text: formulaParam(
      'Formula',
      'sin(2*pi*t)',
      'Ordinary notation: sin(2*pi*t), ^ for powers, pi. t goes from 0 to 1 round the loop.',
    ),
    otherwise: number('Otherwise', 0, 'The value wherever the formula gives no number.', { moves: false }),
  },
  start(value, param) {
    const reach = Number(((param.soft[1] - param.soft[0]) / 5).toPrecision(2));
    const still = Number(value.toPrecision(4));
    return { text: param.cyclic ? `${still} + 360*t` : `${still} + ${reach}*sin(2*pi*t)`, otherwise: value };
  },
  prepare(settings, frames) {
    const hit = read(settings.text);
    const place = (settings as { place?: Place }).place ?? NO_PLACE;
    const { otherwise } = settings;
    if (hit instanceof FormulaError) return still(otherwise);
    const { run, term } = hit;
    const moment: Moment = { t: 0, f: 0, n: frames, ...place };
    const at = (f: number): number => {
      moment.f = f;
      moment.t = f / frames;
      const value = run(moment);
      return value - value === 0 ? value : otherwise;
    };
    const inferred = inferGoing(term, frames);
    const going = inferred ?? measure((t) => at(t * frames));
    const loops = going?.loops ?? 1;
    const course: Course = {
      turns: inferred?.still ? rational(0) : rational(1, loops),
      adds: going?.adds ?? 0,
      by: inferred ? 'proof' : 'measure',
      open: !going,
      sharp: false,
    };
    const step = 1e-4 * frames;
    // What is proved periodic is evaluated within its period, so that it repeats to the last bit; what was only
    // measured is evaluated unwrapped.
    const place_ = (clock: { frame: number; loops?: number }) => clock.frame + (clock.loops ?? 0) * frames;
    return {
      course,
      base(clock) {
        if (inferred) return at(splitTime(clock, loops).frame);
        const value = at(place_(clock));
        return course.open || course.adds === 0 ? value : value - course.adds * splitTime(clock, loops).cycles;
      },
      speed(clock) {
        const f = inferred ? splitTime(clock, loops).frame : place_(clock);
        return slope(at, f, step);
      },
    };
  },
});

/** Central difference with one step of Richardson extrapolation: the error falls with the fourth power. */
function slope(at: (f: number) => number, f: number, h: number): number {
  const wide = (at(f + h) - at(f - h)) / (2 * h);
  const narrow = (at(f + h / 2) - at(f - h / 2)) / h;
  return (4 * narrow - wide) / 3;
}

function still(value: number): Prepared {
  return {
    course: { turns: rational(0), adds: 0, by: 'proof', open: false, sharp: false },
    base: () => value,
    speed: () => 0,
  };
}
