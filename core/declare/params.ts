/**
 * Parameters are declared once. The stored form, the validation, the panel row, the default and
 * the docs all follow from the declaration.
 */
import type { MotionDoc } from '../time/motion';

export type Unit = 'm' | '°' | '%' | 'turns' | '/loop' | '×' | 'mm' | '';

interface ParamBase {
  readonly title: string;
  /** One plain sentence on what the value does. */
  readonly help: string;
  /** Name of a switch or choice parameter, and the values at which this row is of use. */
  readonly shownWhen?: { readonly param: string; readonly is: readonly (string | boolean)[] };
}

export interface NumberParam extends ParamBase {
  readonly type: 'number';
  readonly unit: Unit;
  readonly default: number;
  /** Hard limits: outside them the value has no meaning. */
  readonly min: number;
  readonly max: number;
  /** The range the scrub bar covers; inside min…max. */
  readonly soft: readonly [number, number];
  /** Smallest step of scrubbing and of the arrow keys. */
  readonly step: number;
  readonly integer: boolean;
  /** Whether a motion may drive it. */
  readonly moves: boolean;
}

export interface VectorParam extends ParamBase {
  readonly type: 'vector';
  readonly unit: Unit;
  readonly default: readonly [number, number, number];
  readonly min: number;
  readonly max: number;
  readonly soft: readonly [number, number];
  readonly step: number;
  readonly integer: boolean;
  readonly moves: boolean;
}

export interface ChoiceParam<V extends string = string> extends ParamBase {
  readonly type: 'choice';
  readonly default: V;
  readonly options: readonly { readonly value: V; readonly title: string; readonly help?: string }[];
}

export interface SwitchParam extends ParamBase {
  readonly type: 'switch';
  readonly default: boolean;
}

export interface ColourParam extends ParamBase {
  readonly type: 'colour';
  /** '#rrggbb', sRGB. */
  readonly default: string;
}

export type Param = NumberParam | VectorParam | ChoiceParam | SwitchParam | ColourParam;
export type Params = Readonly<Record<string, Param>>;

/** A number as stored: standing still, or with the motion that drives it. */
export type NumberValue = number | MotionDoc;
export type StoredValue = NumberValue | readonly [NumberValue, NumberValue, NumberValue] | string | boolean;

export type Evaluated<P extends Params> = {
  readonly [K in keyof P]: P[K] extends NumberParam
    ? number
    : P[K] extends VectorParam
      ? readonly [number, number, number]
      : P[K] extends ChoiceParam<infer V>
        ? V
        : P[K] extends SwitchParam
          ? boolean
          : string;
};

type NumberOptions = Partial<Omit<NumberParam, 'type' | 'title' | 'help' | 'default'>>;

function numeric(options: NumberOptions) {
  const min = options.min ?? -1e6;
  const max = options.max ?? 1e6;
  const soft = options.soft ?? [Math.max(min, -10), Math.min(max, 10)];
  return {
    unit: options.unit ?? '',
    min,
    max,
    soft,
    step: options.step ?? (options.integer ? 1 : 0.01),
    integer: options.integer ?? false,
    moves: options.moves ?? true,
    ...(options.shownWhen ? { shownWhen: options.shownWhen } : {}),
  } as const;
}

/** A number with a range and a unit. */
export function number(title: string, value: number, help: string, options: NumberOptions = {}): NumberParam {
  return { type: 'number', title, help, default: value, ...numeric(options) };
}

/** Three numbers, for x, y and z, each of which may move on its own. */
export function vector(
  title: string,
  value: readonly [number, number, number],
  help: string,
  options: NumberOptions = {},
): VectorParam {
  return { type: 'vector', title, help, default: value, ...numeric(options) };
}

export function choice<const V extends string>(
  title: string,
  value: NoInfer<V>,
  options: readonly { readonly value: V; readonly title: string; readonly help?: string }[],
  help: string,
  more: Pick<ParamBase, 'shownWhen'> = {},
): ChoiceParam<V> {
  return { type: 'choice', title, help, default: value, options, ...more };
}

export function toggle(title: string, value: boolean, help: string, more: Pick<ParamBase, 'shownWhen'> = {}): SwitchParam {
  return { type: 'switch', title, help, default: value, ...more };
}

export function colour(title: string, value: string, help: string): ColourParam {
  return { type: 'colour', title, help, default: value };
}

/** The stored values of a fresh step, finish or scene. */
export function defaultsOf(params: Params): Record<string, StoredValue> {
  return Object.fromEntries(Object.entries(params).map(([name, p]) => [name, p.default]));
}
