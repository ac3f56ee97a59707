import { z } from 'zod';
import { defaultsOf, type NumberParam, type NumberValue, type Param, type Params, type VectorParam } from '../declare/params';
import { motionKinds } from '../time/motions/index';

/** A fault found in a value: where, and what to do about it. */
interface Fault {
  readonly path: (string | number)[];
  readonly message: string;
}

type Range = Pick<NumberParam, 'min' | 'max' | 'integer' | 'title'>;

function numberFaults(x: unknown, range: Range): Fault[] {
  if (typeof x !== 'number' || !Number.isFinite(x))
    return [{ path: [], message: `${show(x)} is not a number; ${range.title} wants one between ${range.min} and ${range.max}.` }];
  if (x < range.min) return [{ path: [], message: `${x} is below the smallest ${range.title}, ${range.min}; use a larger number.` }];
  if (x > range.max) return [{ path: [], message: `${x} is above the largest ${range.title}, ${range.max}; use a smaller number.` }];
  if (range.integer && !Number.isInteger(x)) return [{ path: [], message: `${x} is not whole; ${range.title} wants a whole number such as ${Math.round(x)}.` }];
  return [];
}

function show(x: unknown): string {
  if (x === undefined) return 'Nothing';
  const text = JSON.stringify(x);
  return text === undefined ? String(x) : text.length > 40 ? `${text.slice(0, 39)}…` : text;
}

const known = new Map(motionKinds.map((m) => [m.kind, m]));

function motionFaults(x: Record<string, unknown>, param: Range & { moves: boolean }): Fault[] {
  const kind = known.get(x.motion as string);
  if (!kind) return [{ path: ['motion'], message: `${show(x.motion)} is not a motion; use one of ${[...known.keys()].join(', ')}.` }];
  if (!param.moves) return [{ path: ['motion'], message: `${param.title} cannot move; give it a plain number.` }];
  const faults: Fault[] = [];
  for (const name of Object.keys(x))
    if (name !== 'motion' && !(name in kind.params)) faults.push({ path: [name], message: `A ${kind.kind} has no setting “${name}”; leave it out.` });
  for (const [name, setting] of Object.entries(kind.params)) {
    // The ends of a motion are values of what it moves, and so are held to its range.
    const ends = name === 'low' || name === 'high';
    const of = ends && setting.type === 'number' ? { ...setting, min: param.min, max: param.max, integer: false, title: `${setting.title} of ${param.title}` } : setting;
    // Low and high have no default that would suit every value; other settings may be left out.
    if (!ends && x[name] === undefined) continue;
    for (const f of paramFaults(x[name], of)) faults.push({ path: [name, ...f.path], message: f.message });
  }
  return faults;
}

function numberValueFaults(x: unknown, param: NumberParam | VectorParam): Fault[] {
  return typeof x === 'object' && x !== null && !Array.isArray(x) ? motionFaults(x as Record<string, unknown>, param) : numberFaults(x, param);
}

/** What is wrong with a stored value of a declared parameter; empty when it is sound. */
export function paramFaults(x: unknown, param: Param): Fault[] {
  switch (param.type) {
    case 'number':
      return numberValueFaults(x, param);
    case 'vector':
      if (!Array.isArray(x) || x.length !== 3) return [{ path: [], message: `${show(x)} is not a list of three numbers for x, y and z of ${param.title}.` }];
      return x.flatMap((v, i) => numberValueFaults(v, param).map((f) => ({ path: [i, ...f.path], message: f.message })));
    case 'choice':
      return param.options.some((o) => o.value === x)
        ? []
        : [{ path: [], message: `${show(x)} is not a choice of ${param.title}; use one of ${param.options.map((o) => o.value).join(', ')}.` }];
    case 'switch':
      return typeof x === 'boolean' ? [] : [{ path: [], message: `${show(x)} is neither true nor false, which ${param.title} wants.` }];
    case 'colour':
      return typeof x === 'string' && /^#[0-9a-f]{6}$/i.test(x) ? [] : [{ path: [], message: `${show(x)} is not a colour; write it as #rrggbb.` }];
  }
}

/** A stored value with the settings filled in that its motions leave out. */
function completed(x: unknown): unknown {
  if (Array.isArray(x)) return x.map(completed);
  const kind = typeof x === 'object' && x !== null ? known.get((x as { motion?: string }).motion ?? '') : undefined;
  return kind ? { motion: kind.kind, ...defaultsOf(kind.params), low: undefined, high: undefined, ...(x as object) } : x;
}

/** A Zod schema for the stored values of a set of parameters. Missing ones get their default. */
export function valuesSchema(params: Params, owner: string) {
  return z.record(z.string(), z.unknown()).transform((values, ctx) => {
    const out: Record<string, unknown> = {};
    for (const name of Object.keys(values))
      if (!(name in params)) ctx.addIssue({ code: 'custom', path: [name], message: `${owner} has no value “${name}”; leave it out.` });
    for (const [name, param] of Object.entries(params)) {
      const x = values[name] === undefined ? param.default : completed(values[name]);
      for (const f of paramFaults(x, param)) ctx.addIssue({ code: 'custom', path: [name, ...f.path], message: f.message });
      out[name] = x;
    }
    return out as Record<string, NumberValue>;
  });
}
