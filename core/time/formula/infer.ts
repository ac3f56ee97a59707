import { lcm, toRational } from '../../maths/rational';
import { constantOf } from './compile';
import type { Term } from './parse';
import { PERIODIC, STEPPED } from './words';

/**
 * How a term continues from loop to loop: after `loops` loops it has gained `adds`, wherever in the loop. Null if it
 * does not, or if that cannot be proved.
 */
export interface Going {
  readonly loops: number;
  readonly adds: number;
  /** Constant in time. */
  readonly still: boolean;
  /** After this many loops it is negated, as a sine is after half a turn. */
  readonly flips?: number;
}

const STILL: Going = { loops: 1, adds: 0, still: true };
const MOST_LOOPS = 1000;

/** The fraction that a floating-point quotient stands for; null if none has a small denominator. */
function fraction(x: number): { num: number; den: number } | null {
  if (!Number.isFinite(x) || Math.abs(x) > 1e9) return null;
  const r = toRational(x, Math.max(1, Math.abs(x)) * 1e-12, MOST_LOOPS);
  return Math.abs(r.num / r.den - x) <= Math.max(1, Math.abs(x)) * 1e-12 ? r : null;
}

function over(g: Going, loops: number): number {
  return g.adds * (loops / g.loops);
}

/** A term without gain keeps its period through any function. */
function through(parts: readonly (Going | null)[]): Going | null {
  let loops = 1;
  let still = true;
  for (const g of parts) {
    if (!g || g.adds !== 0) return null;
    loops = lcm(loops, g.loops);
    still &&= g.still;
  }
  return loops > MOST_LOOPS ? null : { loops, adds: 0, still };
}

/** Extends a period until the gain of an argument is a whole multiple of `period`. */
function periodic(g: Going, period: number): Going | null {
  const r = fraction(g.adds / period);
  if (!r || g.loops * r.den > MOST_LOOPS) return null;
  return { loops: g.loops * r.den, adds: 0, still: g.still };
}

/** Sine or cosine: periodic after whole turns, negated after an odd number of half turns. */
function swinging(g: Going): Going | null {
  const whole = periodic(g, 2 * Math.PI);
  const half = whole && fraction(g.adds / Math.PI);
  return half && half.num % 2 !== 0 ? { ...whole, flips: g.loops * half.den } : whole;
}

/** Effect of an even function. */
function unsigned(g: Going | null): Going | null {
  return g?.flips && g.adds === 0 ? { loops: g.flips, adds: 0, still: g.still } : through([g]);
}

function inferChoice(when: Going | null, a: Going | null, b: Going | null): Going | null {
  if (!when || when.adds !== 0 || !a || !b) return null;
  const loops = lcm(when.loops, lcm(a.loops, b.loops));
  if (loops > MOST_LOOPS || over(a, loops) !== over(b, loops)) return null;
  return { loops, adds: over(a, loops), still: when.still && a.still && b.still };
}

function inferCall(
  term: Extract<Term, { type: 'call' }>,
  args: readonly (Going | null)[],
  frames: number,
): Going | null {
  const [x] = args;
  if (term.name === 'abs') return unsigned(x);
  if (!x) return null;
  if (term.name === 'sin' || term.name === 'cos') return swinging(x);
  if (term.name in PERIODIC) return periodic(x, PERIODIC[term.name]);
  if (STEPPED.has(term.name) && x.adds !== 0) {
    const r = fraction(x.adds);
    return r && x.loops * r.den <= MOST_LOOPS ? { loops: x.loops * r.den, adds: r.num, still: false } : null;
  }
  if (term.name === 'mod' && x.adds !== 0) {
    const by = numberOf(term.args[1], frames);
    return by ? periodic(x, by) : null;
  }
  return through(args);
}

/**
 * Infers from the tree how a formula continues from loop to loop: t gains 1, f gains n; sums add, products with
 * constants scale, sines drop whole turns, floor passes whole gains on, and any function of a term without gain has
 * none.
 *
 * @param frames N, the gain of `f` and the value of `n`
 */
export function inferGoing(term: Term, frames: number): Going | null {
  const of = (x: Term) => inferGoing(x, frames);
  if (constantOf(term) !== undefined) return STILL;
  switch (term.type) {
    case 'constant':
      return STILL;
    case 'variable':
      if (term.name === 't') return { loops: 1, adds: 1, still: false };
      if (term.name === 'f') return { loops: 1, adds: frames, still: false };
      return STILL;
    case 'minus': {
      const g = of(term.of);
      return g && { ...g, adds: -g.adds };
    }
    case 'compare':
      return through([of(term.left), of(term.right)]);
    case 'choose':
      return inferChoice(of(term.when), of(term.then), of(term.otherwise));
    case 'call':
      return inferCall(term, term.args.map(of), frames);
    case 'binary':
      return inferBinary(term, frames);
  }
}

/** Value of a term in a loop of this many frames, if it depends on nothing else. */
function numberOf(term: Term, frames: number): number | undefined {
  if (term.type === 'variable' && term.name === 'n') return frames;
  if (term.type === 'binary') {
    const [a, b] = [numberOf(term.left, frames), numberOf(term.right, frames)];
    if (a === undefined || b === undefined) return undefined;
    return { '+': a + b, '-': a - b, '*': a * b, '/': a / b, '^': a ** b }[term.op];
  }
  return constantOf(term);
}

/**
 * A product, quotient or power of terms without gain. A product with a number, or a whole power, keeps the sign change;
 * two changes cancel.
 *
 * @param p value of the left side, if it is a number
 * @param q value of the right side, if it is a number
 */
function withoutGain(op: string, a: Going, b: Going, p: number | undefined, q: number | undefined): Going | null {
  const both = through([a, b]);
  if (!both) return null;
  if (a.flips && b.flips === a.flips && (op === '*' || op === '/'))
    return { loops: a.flips, adds: 0, still: both.still };
  const keepsLeft = op === '^' ? Number.isInteger(q) : q !== undefined;
  const flips = keepsLeft ? a.flips : op === '*' && p !== undefined ? b.flips : undefined;
  return flips ? { ...both, flips } : both;
}

function inferBinary({ op, left, right }: Extract<Term, { type: 'binary' }>, frames: number): Going | null {
  const a = inferGoing(left, frames);
  const b = inferGoing(right, frames);
  if (!a || !b) return null;
  if (op === '+' || op === '-') {
    const loops = lcm(a.loops, b.loops);
    return loops > MOST_LOOPS
      ? null
      : { loops, adds: over(a, loops) + (op === '+' ? 1 : -1) * over(b, loops), still: a.still && b.still };
  }
  const [p, q] = [numberOf(left, frames), numberOf(right, frames)];
  if (op === '^' && q !== undefined && Number.isInteger(q) && q % 2 === 0) return unsigned(a);
  if (a.adds === 0 && b.adds === 0) return withoutGain(op, a, b, p, q);
  // A gain may be scaled by a constant, and by nothing else.
  if (op === '*' && q !== undefined) return { ...a, adds: a.adds * q };
  if (op === '*' && p !== undefined) return { ...b, adds: b.adds * p };
  if (op === '/' && q !== undefined) return { ...a, adds: a.adds / q };
  return null;
}
