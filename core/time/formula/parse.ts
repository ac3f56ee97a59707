import { LIMITS } from '../../declare/limits';
import { create, parseDependencies, type MathNode } from 'mathjs/number';
import { CONSTANTS, FUNCTIONS, VARIABLES } from './words';

/** A formula that has been checked: only what `words.ts` lists is in it. */
export type Term =
  | { readonly type: 'constant'; readonly value: number }
  | { readonly type: 'variable'; readonly name: string }
  | { readonly type: 'call'; readonly name: string; readonly args: readonly Term[] }
  | { readonly type: 'binary'; readonly op: '+' | '-' | '*' | '/' | '^'; readonly left: Term; readonly right: Term }
  | { readonly type: 'compare'; readonly op: Comparison; readonly left: Term; readonly right: Term }
  | { readonly type: 'minus'; readonly of: Term }
  | { readonly type: 'choose'; readonly when: Term; readonly then: Term; readonly otherwise: Term };

export type Comparison = '<' | '>' | '<=' | '>=' | '==' | '!=';

/** What is wrong with a formula, and at which character (from 0). */
export class FormulaError extends Error {
  override readonly name = 'FormulaError';
  constructor(
    message: string,
    readonly at: number,
  ) {
    super(message);
  }
}

export const MAX_FORMULA = LIMITS.formula;
const MAX_DEPTH = 60;

const { parse } = create({ parseDependencies }, {}) as unknown as { parse: (text: string) => MathNode };

/** Where a word, or a sign, stands in the text; the `nth` time it occurs. */
function placeOf(text: string, word: string): number {
  if (/^\w+$/.test(word)) {
    const found = new RegExp(`(?<![\\w.])${word}(?!\\w)`).exec(text);
    if (found) return found.index;
  }
  return Math.max(0, text.indexOf(word));
}

/** Parses a formula. Throws FormulaError, which points at the character. */
export function parseFormula(text: string): Term {
  if (text.trim() === '') throw new FormulaError('The formula is empty; write something like sin(2*pi*t).', 0);
  if (text.length > MAX_FORMULA)
    throw new FormulaError(
      `A formula has at most ${MAX_FORMULA} characters; this one has ${text.length}.`,
      MAX_FORMULA,
    );
  let node: MathNode;
  try {
    node = parse(text);
  } catch (error) {
    const { message, char } = error as { message: string; char?: number };
    const at = Math.max(0, Math.min(text.length, (char ?? 1) - 1));
    throw new FormulaError(`${message.replace(/ \(char \d+\)$/, '')} at character ${at + 1}.`, at);
  }
  return check(node, text, 0);
}

interface AnyNode {
  readonly type: string;
  readonly name?: string;
  readonly value?: unknown;
  readonly op?: string;
  readonly fn?: unknown;
  readonly args?: readonly AnyNode[];
  readonly content?: AnyNode;
  readonly condition?: AnyNode;
  readonly trueExpr?: AnyNode;
  readonly falseExpr?: AnyNode;
  readonly conditionals?: readonly string[];
  readonly params?: readonly AnyNode[];
}

const COMPARISONS: Readonly<Record<string, Comparison>> = {
  smaller: '<',
  larger: '>',
  smallerEq: '<=',
  largerEq: '>=',
  equal: '==',
  unequal: '!=',
};

type Refuse = (what: string, sign: string) => never;

const isVariable = (name: string) => VARIABLES.some((v) => v.name === name);

function checkSymbol(name: string, refuse: Refuse): Term {
  if (Object.hasOwn(CONSTANTS, name)) return { type: 'constant', value: CONSTANTS[name] };
  if (isVariable(name)) return { type: 'variable', name };
  if (Object.hasOwn(FUNCTIONS, name))
    return refuse(`“${name}” wants its argument in brackets, as in ${name}(t),`, name);
  return refuse(`“${name}” is unknown; use ${VARIABLES.map((v) => v.name).join(', ')}, pi`, name);
}

/** @returns the name of a function that is there and takes that many arguments */
function checkCall(node: AnyNode, refuse: Refuse): string {
  const name =
    typeof node.fn === 'object' && node.fn !== null && 'name' in node.fn ? String(node.fn.name) : String(node.name);
  if (!Object.hasOwn(FUNCTIONS, name)) {
    if (isVariable(name) || Object.hasOwn(CONSTANTS, name))
      return refuse(`“${name}” is not a function; write ${name}*( … ) to multiply`, name);
    return refuse(`There is no function “${name}”`, name);
  }
  const [least, most] = FUNCTIONS[name].args;
  const got = node.args!.length;
  if (got >= least && got <= most) return name;
  const wanted = `${least === most ? least : `${least} to ${most}`} ${most === 1 ? 'argument' : 'arguments'}`;
  return refuse(`“${name}” takes ${wanted}, not ${got},`, name);
}

const OPERATORS = { add: '+', subtract: '-', multiply: '*', divide: '/', pow: '^' } as const;
const isOperator = (fn: unknown): fn is keyof typeof OPERATORS => typeof fn === 'string' && fn in OPERATORS;

function checkOperator(node: AnyNode, inner: (x: AnyNode) => Term, refuse: Refuse): Term {
  const [left, right] = node.args!;
  const { fn } = node;
  if (fn === 'unaryMinus') return { type: 'minus', of: inner(left) };
  if (fn === 'unaryPlus') return inner(left);
  if (isOperator(fn)) return { type: 'binary', op: OPERATORS[fn], left: inner(left), right: inner(right) };
  if (fn === 'mod') return { type: 'call', name: 'mod', args: [inner(left), inner(right)] };
  if (typeof fn === 'string' && fn in COMPARISONS)
    return { type: 'compare', op: COMPARISONS[fn], left: inner(left), right: inner(right) };
  return refuse(`“${node.op}” cannot be used in a formula`, node.op ?? '');
}

/** Converts the parsing library's tree to ours; rejects everything that is not allowed. */
function check(raw: unknown, text: string, depth: number): Term {
  const node = raw as AnyNode;
  const refuse: Refuse = (what, sign) => {
    const at = placeOf(text, sign);
    throw new FormulaError(`${what} at character ${at + 1}.`, at);
  };
  if (depth > MAX_DEPTH) return refuse('The formula is nested too deeply', text);
  const inner = (x: AnyNode) => check(x, text, depth + 1);
  switch (node.type) {
    case 'ConstantNode':
      if (typeof node.value === 'number' && Number.isFinite(node.value)) return { type: 'constant', value: node.value };
      return refuse(`“${String(node.value)}” is not a number a formula can use`, String(node.value));
    case 'SymbolNode':
      return checkSymbol(node.name!, refuse);
    case 'ParenthesisNode':
      return inner(node.content!);
    case 'FunctionNode':
      return { type: 'call', name: checkCall(node, refuse), args: node.args!.map(inner) };
    case 'OperatorNode':
      return checkOperator(node, inner, refuse);
    case 'RelationalNode': {
      if (node.params!.length !== 2) return refuse('Only two things can be compared at once', text);
      return {
        type: 'compare',
        op: COMPARISONS[node.conditionals![0]],
        left: inner(node.params![0]),
        right: inner(node.params![1]),
      };
    }
    case 'ConditionalNode':
      return {
        type: 'choose',
        when: inner(node.condition!),
        then: inner(node.trueExpr!),
        otherwise: inner(node.falseExpr!),
      };
    case 'AssignmentNode':
    case 'FunctionAssignmentNode':
      return refuse('A formula is one expression; it cannot set anything with “=”', '=');
    case 'BlockNode':
      return refuse('A formula is one expression; “;” does not belong', ';');
    default:
      return refuse(
        'Only numbers, variables, functions and + − * / ^ can stand in a formula; something else begins',
        text.match(/[[\]{}:"'\\]/)?.[0] ?? text,
      );
  }
}
