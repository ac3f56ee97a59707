import type { Comparison, Term } from './parse';
import { FUNCTIONS, type Place } from './words';

/** Values of a formula's variables at a moment. */
export interface Moment extends Place {
  t: number;
  f: number;
  n: number;
}

export type Compiled = (at: Moment) => number;

/** For terms that depend on no variable. */
const NOWHEN: Moment = { t: 0, f: 0, n: 1, order: 0, count: 1, seed: 0 };

const COMPARE: Record<Comparison, (a: number, b: number) => boolean> = {
  '<': (a, b) => a < b,
  '>': (a, b) => a > b,
  '<=': (a, b) => a <= b,
  '>=': (a, b) => a >= b,
  '==': (a, b) => a === b,
  '!=': (a, b) => a !== b,
};

const VARIABLE: Record<string, Compiled> = {
  t: (m) => m.t,
  f: (m) => m.f,
  n: (m) => m.n,
  order: (m) => m.order,
  count: (m) => m.count,
  seed: (m) => m.seed,
};

const constants = new WeakMap<Term, { readonly value: number | undefined }>();

/**
 * Value of a constant term; undefined if it depends on a variable. Cached, since every level asks for those below it.
 */
export function constantOf(term: Term): number | undefined {
  let known = constants.get(term);
  if (!known) constants.set(term, (known = { value: workOut(term) }));
  return known.value;
}

function workOut(term: Term): number | undefined {
  switch (term.type) {
    case 'constant':
      return term.value;
    case 'variable':
      return undefined;
    case 'minus':
      return negated(constantOf(term.of));
    default: {
      const parts =
        term.type === 'call'
          ? term.args
          : term.type === 'choose'
            ? [term.when, term.then, term.otherwise]
            : [term.left, term.right];
      return parts.every((p) => constantOf(p) !== undefined) ? build(term)(NOWHEN) : undefined;
    }
  }
}

function negated(x: number | undefined): number | undefined {
  return x === undefined ? undefined : -x;
}

/**
 * Compiles a checked formula to nested closures. Constants are folded; products and sums with a constant get closures
 * of their own.
 */
export function compileFormula(term: Term): Compiled {
  const value = constantOf(term);
  if (value !== undefined) return () => value;
  const line = lineOf(term);
  if (line) {
    const [at, per] = line;
    return at === 0 ? (m) => per * m.t : (m) => at + per * m.t;
  }
  return build(term);
}

/** A linear term a + b·t, as [a, b]: most arguments of a sine are. */
function lineOf(term: Term): readonly [number, number] | null {
  const value = constantOf(term);
  if (value !== undefined) return [value, 0];
  switch (term.type) {
    case 'variable':
      return term.name === 't' ? [0, 1] : null;
    case 'minus': {
      const of = lineOf(term.of);
      return of && [-of[0], -of[1]];
    }
    case 'binary': {
      const [a, b] = [lineOf(term.left), lineOf(term.right)];
      if (!a || !b) return null;
      if (term.op === '+') return [a[0] + b[0], a[1] + b[1]];
      if (term.op === '-') return [a[0] - b[0], a[1] - b[1]];
      if (term.op === '*' && (a[1] === 0 || b[1] === 0))
        return a[1] === 0 ? [a[0] * b[0], a[0] * b[1]] : [a[0] * b[0], a[1] * b[0]];
      if (term.op === '/' && b[1] === 0) return [a[0] / b[0], a[1] / b[0]];
      return null;
    }
    default:
      return null;
  }
}

/** A constant times a sine or cosine of a linear term, in one closure; null for anything else. */
function swing(term: Term, factor = 1): Compiled | null {
  if (term.type === 'binary' && term.op === '*') {
    const [p, q] = [constantOf(term.left), constantOf(term.right)];
    if (p !== undefined) return swing(term.right, factor * p);
    return q === undefined ? null : swing(term.left, factor * q);
  }
  if (term.type !== 'call' || (term.name !== 'sin' && term.name !== 'cos')) return null;
  const line = lineOf(term.args[0]);
  if (!line) return null;
  const [at, per] = line;
  if (term.name === 'sin')
    return factor === 1 ? (m) => Math.sin(at + per * m.t) : (m) => factor * Math.sin(at + per * m.t);
  return factor === 1 ? (m) => Math.cos(at + per * m.t) : (m) => factor * Math.cos(at + per * m.t);
}

/** Sums of three and more terms in one closure, added from left to right. */
function longSum(term: Term): Compiled | null {
  const parts: Term[] = [];
  let rest: Term = term;
  while (rest.type === 'binary' && rest.op === '+') {
    parts.unshift(rest.right);
    rest = rest.left;
  }
  parts.unshift(rest);
  if (parts.length < 3) return null;
  const [a, b, c, ...more] = parts.map(compileFormula);
  const first = constantOf(parts[0]);
  const three: Compiled = first !== undefined ? (m) => first + b(m) + c(m) : (m) => a(m) + b(m) + c(m);
  if (more.length === 0) return three;
  if (more.length === 1) return (m) => three(m) + more[0](m);
  return (m) => {
    let sum = three(m);
    for (const x of more) sum += x(m);
    return sum;
  };
}

function build(term: Term): Compiled {
  const whole = swing(term) ?? longSum(term);
  if (whole) return whole;
  switch (term.type) {
    case 'constant': {
      const { value } = term;
      return () => value;
    }
    case 'variable':
      return VARIABLE[term.name];
    case 'minus': {
      const of = compileFormula(term.of);
      return (m) => -of(m);
    }
    case 'choose': {
      const [when, then, otherwise] = [term.when, term.then, term.otherwise].map(compileFormula);
      return (m) => (when(m) !== 0 ? then(m) : otherwise(m));
    }
    case 'compare': {
      const test = COMPARE[term.op];
      const [left, right] = [compileFormula(term.left), compileFormula(term.right)];
      return (m) => (test(left(m), right(m)) ? 1 : 0);
    }
    case 'call':
      return buildCall(term.name, term.args);
    case 'binary':
      return buildBinary(term);
  }
}

function buildCall(name: string, args: readonly Term[]): Compiled {
  const [a, b] = args.map(compileFormula);
  // Direct calls, so that the engine can inline them.
  if (name === 'sin') return (m) => Math.sin(a(m));
  if (name === 'cos') return (m) => Math.cos(a(m));
  if (name === 'abs') return (m) => Math.abs(a(m));
  if (name === 'floor') return (m) => Math.floor(a(m));
  if (name === 'sqrt') return (m) => Math.sqrt(a(m));
  if (name === 'exp') return (m) => Math.exp(a(m));
  const { of } = FUNCTIONS[name];
  if (args.length === 1) return (m) => of(a(m));
  if (args.length === 2) return (m) => of(a(m), b(m));
  const all = args.map(compileFormula);
  return (m) => of(...all.map((x) => x(m)));
}

function buildBinary({ op, left, right }: Extract<Term, { type: 'binary' }>): Compiled {
  const [p, q] = [constantOf(left), constantOf(right)];
  const [a, b] = [compileFormula(left), compileFormula(right)];
  switch (op) {
    case '+':
      if (p !== undefined) return (m) => p + b(m);
      if (q !== undefined) return (m) => a(m) + q;
      return (m) => a(m) + b(m);
    case '-':
      if (p !== undefined) return (m) => p - b(m);
      if (q !== undefined) return (m) => a(m) - q;
      return (m) => a(m) - b(m);
    case '*':
      if (p !== undefined) return (m) => p * b(m);
      if (q !== undefined) return (m) => a(m) * q;
      return (m) => a(m) * b(m);
    case '/':
      if (q !== undefined) return (m) => a(m) / q;
      return (m) => a(m) / b(m);
    case '^':
      if (q === 2)
        return (m) => {
          const x = a(m);
          return x * x;
        };
      if (q === 3)
        return (m) => {
          const x = a(m);
          return x * x * x;
        };
      return (m) => Math.pow(a(m), b(m));
  }
}
