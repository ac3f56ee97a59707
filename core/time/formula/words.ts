/** Everything a formula may use; nothing else is reachable. */

const TWO_PI = 2 * Math.PI;

/** Functions by name: number of arguments, and implementation. */
export const FUNCTIONS: Readonly<
  Record<string, { readonly args: readonly [number, number]; readonly of: (...x: number[]) => number }>
> = {
  sin: { args: [1, 1], of: Math.sin },
  cos: { args: [1, 1], of: Math.cos },
  tan: { args: [1, 1], of: Math.tan },
  asin: { args: [1, 1], of: Math.asin },
  acos: { args: [1, 1], of: Math.acos },
  atan: { args: [1, 1], of: Math.atan },
  atan2: { args: [2, 2], of: Math.atan2 },
  sinh: { args: [1, 1], of: Math.sinh },
  cosh: { args: [1, 1], of: Math.cosh },
  tanh: { args: [1, 1], of: Math.tanh },
  exp: { args: [1, 1], of: Math.exp },
  log: { args: [1, 2], of: (x, base) => (base === undefined ? Math.log(x) : Math.log(x) / Math.log(base)) },
  log2: { args: [1, 1], of: Math.log2 },
  log10: { args: [1, 1], of: Math.log10 },
  sqrt: { args: [1, 1], of: Math.sqrt },
  cbrt: { args: [1, 1], of: Math.cbrt },
  pow: { args: [2, 2], of: Math.pow },
  hypot: { args: [1, 8], of: Math.hypot },
  abs: { args: [1, 1], of: Math.abs },
  sign: { args: [1, 1], of: Math.sign },
  floor: { args: [1, 1], of: Math.floor },
  ceil: { args: [1, 1], of: Math.ceil },
  round: { args: [1, 1], of: (x) => Math.sign(x) * Math.round(Math.abs(x)) },
  fract: { args: [1, 1], of: (x) => x - Math.floor(x) },
  min: { args: [1, 8], of: Math.min },
  max: { args: [1, 8], of: Math.max },
  mod: { args: [2, 2], of: (x, y) => (y === 0 ? x : x - y * Math.floor(x / y)) },
  clamp: { args: [3, 3], of: (x, low, high) => Math.max(low, Math.min(high, x)) },
};

/** Functions that are periodic in their argument. */
export const PERIODIC: Readonly<Record<string, number>> = { sin: TWO_PI, cos: TWO_PI, tan: Math.PI, fract: 1 };

/** Functions that pass a whole gain of their argument on. */
export const STEPPED = new Set(['floor', 'ceil', 'round']);

export const CONSTANTS: Readonly<Record<string, number>> = { pi: Math.PI, tau: TWO_PI, e: Math.E };

/** Variables and their meaning. The first three vary in time; the others describe a copy. */
export const VARIABLES: readonly { readonly name: string; readonly help: string }[] = [
  { name: 't', help: 'share of the loop: 0 at its start, 1 at its end, and on from there; fract(t) begins anew' },
  { name: 'f', help: 'frame' },
  { name: 'n', help: 'frames in the loop' },
  { name: 'order', help: 'order of the ribbon, from 0' },
  { name: 'count', help: 'number of ribbons' },
  { name: 'seed', help: 'a number 0 to 1 of its own for every ribbon' },
];

/** What a formula knows of its copy. */
export interface Place {
  readonly order: number;
  readonly count: number;
  readonly seed: number;
}

export const NO_PLACE: Place = { order: 0, count: 1, seed: 0 };
