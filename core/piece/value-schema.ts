import { z } from 'zod';
import type { NumberParam, Param, Params, StoredValue, VectorParam } from '../declare/params';
import { isKeepable, LIMITS } from '../declare/limits';
import { fault, isRecord, show, within, type Fault } from './fault';
import { colourFaults, curveFaults, keysFaults, pointsFaults, stopsFaults } from './list-faults';
import { colourMotionFaults, completed, motionFaults } from './motion-faults';

type Range = Pick<NumberParam, 'min' | 'max' | 'integer' | 'title'>;

function numberFaults(x: unknown, range: Range): Fault[] {
  if (typeof x !== 'number' || !Number.isFinite(x))
    return [fault(`${show(x)} is not a number; ${range.title} wants one between ${range.min} and ${range.max}.`)];
  if (x < range.min) return [fault(`${x} is below the smallest ${range.title}, ${range.min}; use a larger number.`)];
  if (x > range.max) return [fault(`${x} is above the largest ${range.title}, ${range.max}; use a smaller number.`)];
  if (range.integer && !Number.isInteger(x))
    return [fault(`${x} is not whole; ${range.title} wants a whole number such as ${Math.round(x)}.`)];
  return [];
}

function numberValueFaults(x: unknown, param: NumberParam | VectorParam): Fault[] {
  return isRecord(x) ? motionFaults(x, param, paramFaults) : numberFaults(x, param);
}

function textFaults(x: unknown, most: number, title: string): Fault[] {
  if (typeof x !== 'string') return [fault(`${show(x)} is not a text, which ${title} wants.`)];
  if (x.length > most) return [fault(`${title} is ${x.length} characters long; the most is ${most}. Shorten it.`)];
  return isKeepable(x)
    ? []
    : [fault(`${title} holds a character that no text can have (U+0000, or half of one); take it out.`)];
}

/** Faults of a stored value of a declared parameter; empty if it is sound. */
export function paramFaults(x: unknown, param: Param): Fault[] {
  switch (param.type) {
    case 'number':
      return numberValueFaults(x, param);
    case 'vector':
      if (!Array.isArray(x) || x.length !== 3)
        return [fault(`${show(x)} is not a list of three numbers for x, y and z of ${param.title}.`)];
      return x.flatMap((v, i) => within(numberValueFaults(v, param), i));
    case 'choice':
      return param.options.some((o) => o.value === x)
        ? []
        : [
            fault(
              `${show(x)} is not a choice of ${param.title}; use one of ${param.options.map((o) => o.value).join(', ')}.`,
            ),
          ];
    case 'switch':
      return typeof x === 'boolean' ? [] : [fault(`${show(x)} is neither true nor false, which ${param.title} wants.`)];
    case 'colour':
      return isRecord(x) && param.moves
        ? colourMotionFaults(x, param.title, paramFaults)
        : colourFaults(x, param.title);
    case 'formula':
      return textFaults(x, LIMITS.formula, param.title);
    case 'source':
      return typeof x === 'string' && x.length <= LIMITS.address && isKeepable(x)
        ? []
        : [fault(`${show(x)} is not the address of a value, which ${param.title} wants.`)];
    case 'keys':
      return keysFaults(x, { min: -1e9, max: 1e9, title: param.title });
    case 'curve':
      return curveFaults(x);
    case 'points':
      return pointsFaults(x);
    case 'stops':
      return stopsFaults(x, param.open);
    case 'text':
      return textFaults(x, param.max, param.title);
    case 'ribbon':
      return typeof x === 'string' && x.length <= LIMITS.identifier && isKeepable(x)
        ? []
        : [fault(`${show(x)} is not the identifier of a ribbon, which ${param.title} wants.`)];
    case 'asset':
      return typeof x === 'string' && /^([0-9a-f]{64})?$/.test(x)
        ? []
        : [fault(`${show(x)} is not the fingerprint of a file (64 hexadecimal digits), which ${param.title} wants.`)];
  }
}

/** Zod schema of the stored values of a set of parameters. Missing ones get their default, except sparse ones. */
export function valuesSchema(params: Params, owner: string) {
  return z.record(z.string(), z.unknown()).transform((values, ctx) => {
    const out: Record<string, unknown> = {};
    for (const name of Object.keys(values))
      if (!(name in params))
        ctx.addIssue({ code: 'custom', path: [name], message: `${owner} has no value “${name}”; leave it out.` });
    for (const [name, param] of Object.entries(params)) {
      if (param.sparse && values[name] === undefined) continue;
      const x = values[name] === undefined ? param.default : completed(values[name], param);
      for (const f of paramFaults(x, param))
        ctx.addIssue({ code: 'custom', path: [name, ...f.path], message: f.message });
      out[name] = x;
    }
    return out as Record<string, StoredValue>;
  });
}
