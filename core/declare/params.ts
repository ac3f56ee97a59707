/** Parameters are declared once. Stored form, validation, panel row, default and docs follow from the declaration. */
import type { KeyDoc, MotionDoc } from './documents';
import type { HandleDoc } from './handle';
import { widened } from './widen';

export type Unit =
  | 'm'
  | '°'
  | '%'
  | 'turns'
  | '/loop'
  | 'm/loop'
  | '×'
  | 'mm'
  | 'nm'
  | 'K'
  | 'EV'
  | 'px'
  | 'frames'
  | 'loops'
  | 'copies'
  | '';

/** A condition on another value of the same set: it is one of some, or none of some. */
export type When =
  | { readonly param: string; readonly is: readonly (string | boolean)[] }
  | { readonly param: string; readonly not: readonly (string | boolean)[] };

interface ParamBase {
  readonly title: string;
  /** One plain sentence on what the value does. */
  readonly help: string;
  /** Conditions on other values of the same set under which the row is shown. */
  readonly shownWhen?: When | readonly When[];
  /** Seldom needed: the panel folds it away. */
  readonly more?: boolean;
  /** One of many that are seldom set: a document omits it until it is. */
  readonly sparse?: boolean;
  /** While it is edited, the picture marks in colour what is in focus. */
  readonly focuses?: boolean;
  /** How it is dragged in the picture; absent, not at all. */
  readonly handle?: HandleDoc;
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
  /** Period of its meaning: 360 for an angle of rotation. */
  readonly cyclic?: number;
  /** Cycles per loop: only whole numbers close. */
  readonly counts?: boolean;
  /**
   * How it scales with the length of the loop if its unit does not say: 1 in proportion, 2 with the square, −1
   * inversely.
   */
  readonly perLoop?: 1 | 2 | -1;
  /** A duration, shown in frames or as a share of the loop, as preferred. */
  readonly time?: boolean;
  /**
   * A seed: of chance, combined with the identity of its step, or of a pattern, which is the same wherever it is used.
   */
  readonly seeds?: 'chance' | 'pattern';
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
  readonly cyclic?: number;
  /** As of a number. */
  readonly perLoop?: 1 | 2 | -1;
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
  readonly moves: boolean;
}

/** Textbook mathematics; see time/formula. */
export interface FormulaParam extends ParamBase {
  readonly type: 'formula';
  readonly default: string;
}

/** Address of another value, as `addressKey` writes it; empty for none. */
export interface SourceParam extends ParamBase {
  readonly type: 'source';
  readonly default: string;
}

/** Keys on the circle of the loop; see time/keys. */
export interface KeysParam extends ParamBase {
  readonly type: 'keys';
  readonly default: readonly KeyDoc[];
}

/** A drawn cycle: from 4 to 128 heights 0…1 at even places, the last leading into the first. */
export interface CurveParam extends ParamBase {
  readonly type: 'curve';
  readonly default: readonly number[];
}

/** A closed path through 3 to 64 points in metres. */
export interface PointsParam extends ParamBase {
  readonly type: 'points';
  readonly default: readonly (readonly [number, number, number])[];
}

/** Colours of a closed gradient: from 1 to 16, each at a place 0 ≤ at < 1 of the round. */
export interface StopsParam extends ParamBase {
  readonly type: 'stops';
  /** It does not close: a position may be 1. */
  readonly open?: boolean;
  readonly default: readonly ColourStop[];
}

export interface ColourStop {
  readonly at: number;
  /** '#rrggbb', sRGB. */
  readonly colour: string;
}

/** A text of the user's own, up to `max` characters. */
export interface TextParam extends ParamBase {
  readonly type: 'text';
  readonly default: string;
  readonly max: number;
  /** Lines of its field. */
  readonly lines: number;
  /** File extensions, as in `accept`, whose text may be loaded. */
  readonly file?: string;
}

/** The identifier of another ribbon of the piece; empty for none. */
export interface RibbonParam extends ParamBase {
  readonly type: 'ribbon';
  readonly default: string;
  /** The named ribbon serves this step alone and is usually hidden beside it: a path, a cutter, a profile. */
  readonly serves?: boolean;
}

/** Fingerprint of a file kept with the piece; empty for none. */
export interface AssetParam extends ParamBase {
  readonly type: 'asset';
  readonly default: string;
  /** A shape, the brightness of a picture, a colour picture, or an environment map. */
  readonly accepts: 'shape' | 'picture' | 'image' | 'light';
}

export type Param =
  | NumberParam
  | VectorParam
  | ChoiceParam
  | SwitchParam
  | ColourParam
  | FormulaParam
  | SourceParam
  | KeysParam
  | CurveParam
  | PointsParam
  | StopsParam
  | TextParam
  | RibbonParam
  | AssetParam;
export type Params = Readonly<Record<string, Param>>;

/** A number as stored: constant, or the motion that drives it. */
export type NumberValue = number | MotionDoc;
/** A colour as stored: '#rrggbb', or the motion that drives it. */
export type ColourValue = string | MotionDoc;
export type Points = readonly (readonly [number, number, number])[];
export type StoredValue =
  | NumberValue
  | readonly [NumberValue, NumberValue, NumberValue]
  | string
  | boolean
  | Points
  | readonly number[]
  | readonly KeyDoc[]
  | readonly ColourStop[];

export type Evaluated<P extends Params> = {
  readonly [K in keyof P]: P[K] extends NumberParam
    ? number
    : P[K] extends VectorParam
      ? readonly [number, number, number]
      : P[K] extends ChoiceParam<infer V>
        ? V
        : P[K] extends SwitchParam
          ? boolean
          : P[K] extends KeysParam | CurveParam | PointsParam | StopsParam
            ? P[K]['default']
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
    ...(options.cyclic ? { cyclic: options.cyclic } : {}),
    ...(options.counts ? { counts: true, moves: false } : {}),
    ...(options.perLoop ? { perLoop: options.perLoop } : {}),
    ...(options.time ? { time: true } : {}),
    ...(options.sparse ? { sparse: true } : {}),
    ...(options.seeds ? { seeds: options.seeds } : {}),
    ...(options.shownWhen ? { shownWhen: options.shownWhen } : {}),
    ...(options.more ? { more: true } : {}),
    ...(options.handle ? { handle: options.handle } : {}),
    ...(options.focuses ? { focuses: true } : {}),
  } as const;
}

/** A number with a range and a unit. */
export function number(title: string, value: number, help: string, options: NumberOptions = {}): NumberParam {
  return { type: 'number', title, help, default: value, ...numeric(options) };
}

/** The largest seed. */
export const MAX_SEED = 99_999;

/** A whole number that seeds chance or a pattern. */
export function seed(
  title: string,
  value: number,
  help: string,
  seeds: 'chance' | 'pattern',
  options: Pick<NumberOptions, 'moves' | 'more' | 'shownWhen'> = {},
): NumberParam {
  return number(title, value, help, { min: 0, max: MAX_SEED, soft: [0, 100], integer: true, seeds, ...options });
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
  more: Pick<ParamBase, 'shownWhen' | 'more'> = {},
): ChoiceParam<V> {
  return { type: 'choice', title, help, default: value, options, ...more };
}

export function toggle(
  title: string,
  value: boolean,
  help: string,
  more: Pick<ParamBase, 'shownWhen' | 'more'> = {},
): SwitchParam {
  return { type: 'switch', title, help, default: value, ...more };
}

export function colour(
  title: string,
  value: string,
  help: string,
  more: Partial<Pick<ColourParam, 'moves'>> & Pick<ParamBase, 'shownWhen'> = {},
): ColourParam {
  return {
    type: 'colour',
    title,
    help,
    default: value,
    moves: more.moves ?? true,
    ...(more.shownWhen ? { shownWhen: more.shownWhen } : {}),
  };
}

type Shown = Pick<ParamBase, 'shownWhen'>;

export function formula(title: string, value: string, help: string): FormulaParam {
  return { type: 'formula', title, help, default: value };
}

export function source(title: string, help: string): SourceParam {
  return { type: 'source', title, help, default: '' };
}

export function keyList(title: string, help: string): KeysParam {
  return { type: 'keys', title, help, default: [{ at: 0, value: 0, to: 'linear' }] };
}

export function curve(title: string, value: readonly number[], help: string, more: Shown = {}): CurveParam {
  return { type: 'curve', title, help, default: value, ...more };
}

export function points(
  title: string,
  value: Points,
  help: string,
  more: Pick<ParamBase, 'shownWhen' | 'more' | 'handle'> = {},
): PointsParam {
  return { type: 'points', title, help, default: value, ...more };
}

export function stops(title: string, value: readonly ColourStop[], help: string): StopsParam {
  return { type: 'stops', title, help, default: value };
}

export function text(
  title: string,
  value: string,
  help: string,
  more: Shown & { readonly max?: number; readonly lines?: number; readonly file?: string } = {},
): TextParam {
  const { max = 200, lines = 1, ...rest } = more;
  return { type: 'text', title, help, default: value, max, lines, ...rest };
}

export function ribbon(
  title: string,
  help: string,
  more: Pick<RibbonParam, 'shownWhen' | 'more' | 'serves' | 'sparse'> = {},
): RibbonParam {
  return { type: 'ribbon', title, help, default: '', ...more };
}

export function asset(
  title: string,
  accepts: AssetParam['accepts'],
  help: string,
  more: Pick<ParamBase, 'shownWhen' | 'more'> = {},
): AssetParam {
  return { type: 'asset', title, help, default: '', accepts, ...more };
}

/** Stored values of a new step, finish or scene. */
export function defaultsOf(params: Params): Record<string, StoredValue> {
  return Object.fromEntries(
    Object.entries(params)
      .filter(([, p]) => !p.sparse)
      .map(([name, p]) => [name, p.default]),
  );
}

/** The same parameters, each declaration mapped. */
export function mapParams<P extends Params>(params: P, change: (param: Param, name: string) => Param): P {
  return widened(Object.fromEntries(Object.entries(params).map(([name, p]) => [name, change(p, name)])));
}
