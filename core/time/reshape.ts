import type { NumberValue } from '../declare/params';
import type { KeyDoc } from './keys/key';
import type { LayerDoc, MotionDoc } from './motion';
import { isMoving } from './value';

type Limits = readonly [number, number];

function holder([min, max]: Limits): (x: number) => number {
  return (x) => Math.max(min, Math.min(max, Number(x.toFixed(6))));
}

/** "( … ) + 3": a formula with a number added, which is increased rather than added to again. */
function formulaPlus(text: string, by: number): string {
  const known = /^\((.*)\) \+ (-?[\d.]+(?:e-?\d+)?)$/.exec(text);
  const [inner, old] = known && balanced(known[1]) ? [known[1], Number(known[2])] : [text, 0];
  return `(${inner}) + ${Number((old + by).toPrecision(9))}`;
}

function formulaTimes(text: string, by: number): string {
  const known = /^(-?[\d.]+(?:e-?\d+)?)\*\((.*)\)$/.exec(text);
  const [inner, old] = known && balanced(known[2]) ? [known[2], Number(known[1])] : [text, 1];
  return `${Number((old * by).toPrecision(9))}*(${inner})`;
}

/** Whether the brackets of a text balance. */
function balanced(text: string): boolean {
  let depth = 0;
  for (const c of text) {
    depth += c === '(' ? 1 : c === ')' ? -1 : 0;
    if (depth < 0) return false;
  }
  return depth === 0;
}

/** A value shifted as a whole: a motion keeps its form around another value. */
export function shiftedValue(value: NumberValue, by: number, limits: Limits): NumberValue {
  const hold = holder(limits);
  if (!isMoving(value)) return hold(value + by);
  const after = value.layers?.findLastIndex((l) => l.on && l.how === 'multiply') ?? -1;
  // Adding below a factor would multiply the shift: it is added above the last factor.
  if (after >= 0) return { ...value, layers: shiftedAbove(value.layers!, after, by) };
  const m = value as MotionDoc & Record<string, never>;
  switch (value.motion) {
    case 'keys':
      return { ...value, keys: (value.keys as readonly KeyDoc[]).map((k) => ({ ...k, value: hold(k.value + by) })) };
    case 'stairs':
      return { ...value, from: hold((m.from as number) + by) };
    case 'follow':
      return { ...value, offset: Number(((m.offset as number) + by).toFixed(6)) };
    case 'formula':
      return { ...value, text: formulaPlus(value.text as string, by) };
    default:
      return { ...value, low: hold((m.low as number) + by), high: hold((m.high as number) + by) };
  }
}

/** Layers with a number added above a position: in the last that adds, or in a new one. */
function shiftedAbove(layers: readonly LayerDoc[], place: number, by: number): readonly LayerDoc[] {
  const at = layers.findLastIndex((l, i) => i > place && l.on && l.how === 'add');
  const motion = (shifted: NumberValue) => shifted as MotionDoc;
  if (at >= 0)
    return layers.map((l, i) => (i === at ? { ...l, motion: motion(shiftedValue(l.motion, by, [-1e9, 1e9])) } : l));
  const number = Number(by.toFixed(6));
  return [...layers, { how: 'add', on: true, motion: { motion: 'formula', text: `${number}`, otherwise: number } }];
}

/** A value scaled as a whole, with the full range of its motion. */
export function scaledValue(value: NumberValue, factor: number, limits: Limits): NumberValue {
  const hold = holder(limits);
  if (!isMoving(value)) return hold(value * factor);
  const m = value as MotionDoc & Record<string, never>;
  const rise = (x: number) => Number((x * factor).toFixed(6));
  const tangent = (t: readonly [number, number] | undefined) => t && ([t[0], rise(t[1])] as const);
  // What is added scales too; what is multiplied stays.
  const layers = value.layers && {
    layers: value.layers.map((l): LayerDoc =>
      l.how === 'add' ? { ...l, motion: scaledValue(l.motion, factor, [-1e9, 1e9]) as MotionDoc } : l,
    ),
  };
  const base = { ...value, ...layers };
  switch (value.motion) {
    case 'keys':
      return {
        ...base,
        adds: rise(m.adds as number),
        keys: (value.keys as readonly KeyDoc[]).map((k) => ({
          ...k,
          value: hold(k.value * factor),
          ...(k.in ? { in: tangent(k.in) } : {}),
          ...(k.out ? { out: tangent(k.out) } : {}),
        })),
      };
    case 'stairs':
      return { ...base, from: hold((m.from as number) * factor), adds: rise(m.adds as number) };
    case 'follow':
      return { ...base, scale: rise(m.scale as number), offset: rise(m.offset as number) };
    case 'formula':
      return { ...base, text: formulaTimes(value.text as string, factor) };
    default:
      return { ...base, low: hold((m.low as number) * factor), high: hold((m.high as number) * factor) };
  }
}
