import { LIMITS } from '../declare/limits';
import { defaultsOf, type NumberParam, type Param, type Params, type VectorParam } from '../declare/params';
import { colourMotionKinds } from '../time/colours/index';
import { MAX_FORMULA } from '../time/formula/parse';
import { formulaFault } from '../time/motions/formula';
import { motionKinds } from '../time/motions/index';
import { fault, isRecord, show, within, type Fault } from './fault';
import { keysFaults } from './list-faults';

type Target = Pick<NumberParam | VectorParam, 'title' | 'min' | 'max' | 'moves'>;

const kinds = new Map(motionKinds.map((m) => [m.kind, m]));
const colourKinds = new Map(colourMotionKinds.map((m) => [m.kind, m]));
/** Settings that every motion may have besides its own. */
const COMMON = ['motion', 'timing', 'layers', 'seamMeant'];

/** Checks one setting by its declaration; passed in by value-schema.ts to avoid an import circle. */
type CheckParam = (x: unknown, param: Param) => Fault[];

function span(t: Target): number {
  return t.max - t.min;
}

function settingFaults(
  x: Record<string, unknown>,
  params: Params,
  checked: (name: string) => Fault[],
  kind: string,
): Fault[] {
  const unknown = Object.keys(x).filter((name) => !COMMON.includes(name) && !(name in params));
  return [
    ...unknown.map((name) => fault(`A ${kind} has no setting “${name}”; leave it out.`, name)),
    ...Object.keys(params).flatMap((name) => within(checked(name), name)),
  ];
}

/** Faults of a number's motion; empty if it is sound. */
export function motionFaults(x: Record<string, unknown>, target: Target, checkParam: CheckParam): Fault[] {
  const kind = kinds.get(x.motion as string);
  if (!kind) return [fault(`${show(x.motion)} is not a motion; use one of ${[...kinds.keys()].join(', ')}.`, 'motion')];
  if (!target.moves) return [fault(`${target.title} cannot move; give it a plain number.`, 'motion')];
  const own = settingFaults(
    x,
    kind.params,
    (name) => {
      const setting = kind.params[name];
      const of = kind.ofValue[name];
      // The range of a motion is in the unit of its value, and so limited like it.
      if (of && setting.type === 'number') {
        if (x[name] === undefined && of === 'change') return [];
        const [min, max] = of === 'value' ? [target.min, target.max] : [-span(target), span(target)];
        return checkParam(x[name], {
          ...setting,
          min,
          max,
          integer: false,
          title: `${setting.title} of ${target.title}`,
        });
      }
      // Only what is in the unit of the value has no universal default.
      if (x[name] === undefined) return setting.type === 'keys' ? keysFaults(undefined, target) : [];
      if (setting.type === 'keys') return keysFaults(x[name], target);
      if (setting.type === 'formula') return formulaFaults(x[name]);
      return checkParam(x[name], setting);
    },
    kind.kind,
  );
  return [...own, ...timingFaults(x.timing), ...layerFaults(x.layers, target, checkParam), ...meantFaults(x.seamMeant)];
}

function formulaFaults(x: unknown): Fault[] {
  if (typeof x !== 'string') return [fault(`${show(x)} is not a formula; write it as text such as "sin(2*pi*t)".`)];
  if (x.length > MAX_FORMULA)
    return [fault(`This formula has ${x.length} characters; at most ${MAX_FORMULA} can be read.`)];
  const wrong = formulaFault(x);
  return wrong ? [fault(wrong.message)] : [];
}

function meantFaults(x: unknown): Fault[] {
  return x === undefined || typeof x === 'boolean' ? [] : [fault(`${show(x)} is neither true nor false.`, 'seamMeant')];
}

function timingFaults(x: unknown): Fault[] {
  if (x === undefined) return [];
  if (!isRecord(x))
    return [fault(`${show(x)} is not a timing; write { "shift": 0, "way": "on", "times": 1, "rest": 0 }.`, 'timing')];
  const out: Fault[] = [];
  for (const [name, v] of Object.entries(x)) {
    if (name === 'shift' && !(typeof v === 'number' && Math.abs(v) <= 1000))
      out.push(fault(`${show(v)} is not a shift, which is a share of the loop.`, name));
    else if (name === 'way' && !['on', 'back', 'there', 'sway'].includes(v as string))
      out.push(fault(`${show(v)} is not a way; use one of on, back, there, sway.`, name));
    else if (name === 'times' && !(Number.isInteger(v) && (v as number) >= 1 && (v as number) <= 1000))
      out.push(fault(`${show(v)} is not how often it goes round, a whole number from 1 to 1000.`, name));
    else if (name === 'rest' && !(typeof v === 'number' && v >= 0 && v <= 0.95))
      out.push(fault(`${show(v)} is not a rest, a share of the loop from 0 to 0.95.`, name));
    else if (!['shift', 'way', 'times', 'rest'].includes(name))
      out.push(fault(`A timing has no “${name}”; leave it out.`, name));
  }
  return within(out, 'timing');
}

function layerFaults(x: unknown, target: Target, checkParam: CheckParam): Fault[] {
  if (x === undefined) return [];
  if (!Array.isArray(x) || x.length > LIMITS.layersOfMotion)
    return [fault(`${show(x)} is not a list of at most ${LIMITS.layersOfMotion} layers.`, 'layers')];
  return x.flatMap((layer: unknown, i) => {
    if (!isRecord(layer) || !isRecord(layer.motion))
      return [
        fault(`${show(layer)} is not a layer; write { "how": "add", "on": true, "motion": { … } }.`, 'layers', i),
      ];
    const out: Fault[] = [];
    if (layer.how !== 'add' && layer.how !== 'multiply')
      out.push(fault(`${show(layer.how)} is not how a layer acts; use add or multiply.`, 'how'));
    if (typeof layer.on !== 'boolean') out.push(fault(`${show(layer.on)} is neither true nor false.`, 'on'));
    for (const name of Object.keys(layer))
      if (!['how', 'on', 'motion'].includes(name)) out.push(fault(`A layer has no “${name}”; leave it out.`, name));
    if (layer.motion.layers !== undefined)
      out.push(fault('A layer cannot have layers of its own; put them beside it.', 'motion', 'layers'));
    const range = layerTarget(target, layer.how === 'multiply' ? 'multiply' : 'add');
    return within(
      [...out, ...within(motionFaults(layer.motion, { ...target, ...range }, checkParam), 'motion')],
      'layers',
      i,
    );
  });
}

/** Range of a layer: as far as the value may go either way, or a factor. */
export function layerTarget(
  target: Pick<NumberParam | VectorParam, 'min' | 'max'>,
  how: 'add' | 'multiply',
): { min: number; max: number } {
  const reach = how === 'multiply' ? 1000 : target.max - target.min;
  return { min: -reach, max: reach };
}

/** Faults of a colour's motion. */
export function colourMotionFaults(x: Record<string, unknown>, title: string, checkParam: CheckParam): Fault[] {
  const kind = colourKinds.get(x.motion as string);
  if (!kind)
    return [
      fault(
        `${show(x.motion)} is not a motion of a colour; use one of ${[...colourKinds.keys()].join(', ')}.`,
        'motion',
      ),
    ];
  return settingFaults(
    x,
    kind.params,
    (name) =>
      x[name] === undefined
        ? []
        : checkParam(x[name], { ...kind.params[name], title: `${kind.params[name].title} of ${title}` } as Param),
    kind.kind,
  );
}

/** A stored value with the omitted settings of its motions filled in. */
export function completed(x: unknown, param: Param): unknown {
  if (param.type === 'vector' && Array.isArray(x))
    return x.map((v) => completed(v, { ...param, type: 'number', default: 0 } as Param));
  if (!isRecord(x)) return x;
  const kind = (param.type === 'colour' ? colourKinds : kinds).get(x.motion as string);
  if (!kind) return x;
  const own = defaultsOf(kind.params) as Record<string, unknown>;
  if ('ofValue' in kind)
    for (const [name, of] of Object.entries(kind.ofValue)) if (of === 'value') own[name] = undefined;
  if ('otherwise' in kind.params && param.type === 'number')
    own.otherwise = Math.max(param.min, Math.min(param.max, 0));
  delete own.keys;
  // A drawn cycle is long, and used by one wave shape only.
  delete own.drawn;
  const layers = Array.isArray(x.layers)
    ? { layers: x.layers.map((l) => (isRecord(l) ? { on: true, ...l, motion: completed(l.motion, param) } : l)) }
    : {};
  return { motion: kind.kind, ...own, ...x, ...layers };
}
