import type { Comparison, Term } from './parse';
import { FUNCTIONS, type Place } from './words';

/** What the variables of a formula are at a moment. */
export interface Moment extends Place {
  t: number;
  f: number;
  n: number;
}

export type Compiled = (at: Moment) => number;

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

/** The number a term always is; undefined where it depends on something. */
export function constantOf(term: Term): number | undefined {
  switch (term.type) {
    case 'constant':
      return term.value;
    case 'variable':
      return undefined;
    case 'minus':
      return negated(constantOf(term.of));
    default: {
      const parts = term.type === 'call' ? term.args : term.type === 'choose' ? [term.when, term.then, term.otherwise] : [term.left, term.right];
      return parts.every((p) => constantOf(p) !== undefined) ? build(term)(undefined as never) : undefined;
    }
  }
}

function negated(x: number | undefined): number | undefined {
  return x === undefined ? undefined : -x;
}

/**
 * Turns a checked formula into nested closures. Constant parts are worked out beforehand, and
 * products and sums with a constant get closures of their own.
 */
export function compileFormula(term: Term): Compiled {
  const value = constantOf(term);
  if (value !== undefined) return () => value;
  return build(term);
}

function build(term: Term): Compiled {
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
  // Direct calls, so that the engine can put the mathematics in place.
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
      if (p !== undefined) return right.type === 'variable' && right.name === 't' ? (m) => p * m.t : (m) => p * b(m);
      if (q !== undefined) return (m) => a(m) * q;
      return (m) => a(m) * b(m);
    case '/':
      if (q !== undefined) return (m) => a(m) / q;
      return (m) => a(m) / b(m);
    case '^':
      if (q === 2) return (m) => { const x = a(m); return x * x; };
      if (q === 3) return (m) => { const x = a(m); return x * x * x; };
      return (m) => Math.pow(a(m), b(m));
  }
}
