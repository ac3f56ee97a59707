import type { Asset } from '../assets/asset';
import type { Evaluated, Params, StoredValue } from '../declare/params';
import type { Carries } from '../copies/carry';
import { faceCount, type Mesh } from '../shape/mesh';
import type { Clock } from '../time/loop';
import { checkCost } from './allowance';
import { StepProblem } from '../declare/step-problem';
import type { Reads } from '../declare/reads';

export { StepProblem };

export type Detail = 'draft' | 'final';
export type StepGroup = 'form' | 'repeat' | 'curve' | 'detail' | 'deform' | 'build' | 'solid' | 'place';

/** What a step does with incoming copies: moves them whole, works on each, or merges them into one form first. */
export type CopiesAs = 'whole' | 'each' | 'one';

/**
 * What a step receives. `clock`, `detail` and access to other moments are there only if the step declares that it reads
 * them; otherwise the clock stands at 0 and the detail is final.
 */
export interface StepContext {
  readonly clock: Clock;
  readonly detail: Detail;
  /** The evaluated shape of another ribbon, by the parameter that names it; undefined if there is none. */
  other?(param: string): Mesh | undefined;
  /** The same with its copies as a list, some whole frames later or, if negative, earlier. */
  otherAt?(param: string, frames: number): Mesh | undefined;
  /** The identifier of another ribbon, by the parameter that names it; undefined if there is none. */
  ribbonOf?(param: string): string | undefined;
  /** The file with a SHA-256; undefined until it is loaded. */
  asset?(fingerprint: string): Asset | undefined;
  /** The input shape some whole frames later or, if negative, earlier. */
  inputAt?(frames: number): Mesh;
  /** Some of this step's values at a fraction of the loop; any real number. */
  valuesAt?(share: number, names: readonly string[]): Evaluated<Params>;
  /** Whether some of this step's values move. */
  moves?(names: readonly string[]): boolean;
  /** Equal for the same step on the same chain, whatever the moment. */
  readonly definition?: string;
}

/** A step, declared once in its own file. Schema, panel, menu, defaults and docs follow from it; evaluation is pure. */
export interface StepKind<P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  /** One plain sentence for the menu. */
  readonly help: string;
  /** Name of its icon; the interface maps it to a drawing. */
  readonly icon: string;
  readonly group: StepGroup;
  readonly params: P;
  /** Values of one that a person adds, where these are not the defaults on which documents rely. */
  readonly fresh?: Readonly<Record<string, StoredValue>>;
  /** A few words for the closed card, from the values at the playhead. */
  summary(values: Evaluated<P>): string;
  /** What its result depends on besides its values and input; see reads.ts. */
  readonly reads?: Reads<P>;
  /** Why the step as such does not close, and what would close it; null if it closes. Values are those at f = 0. */
  seam?(values: Evaluated<P>, frames: number): StepSeam | null;
  /** Settings that may close it when its shape is found open; each is tried before it is offered. */
  closings?(values: Evaluated<P>): StepSeam['repairs'];
  /** What the input must contain; without it the input passes through and the card says so. */
  readonly needs?: 'faces' | 'curves';
  /** Loads a library that it needs; until then, evaluation throws a StepProblem. */
  readonly load?: () => Promise<void>;
  readonly loaded?: () => boolean;
  /**
   * Whether its result has copies, from its stored values and whether the input had them; if absent, a step that takes
   * copies whole keeps them.
   */
  copiesAfter?(values: Readonly<Record<string, StoredValue>>, before: boolean): boolean;
  /** What it does with copies by default; if absent, it works on each. */
  readonly copiesAs?: CopiesAs;
  /** How much of a whole copy it moves. */
  readonly carries?: Carries;
  /** If a choice has this value, further values come from the nearest earlier step of the same kind. */
  readonly shares?: { readonly where: string; readonly is: string; readonly names: readonly string[] };
  /**
   * The new shape. Forms ignore `input` (an empty mesh). Throws StepProblem if it cannot work on its input; the input
   * then passes through and the card says why.
   */
  evaluate(values: Evaluated<P>, input: Mesh, context: StepContext): Mesh;
  /** Applies a run of such steps to many copies at once, with the same result as one after another. */
  readonly together?: {
    /** Whether it may be applied with others: it must not fail, and must keep the number of copies. */
    can(values: Evaluated<P>): boolean;
    /** Null if it is not possible after all. */
    evaluate(list: readonly Evaluated<P>[], input: Mesh, context: StepContext): Mesh | null;
  };
}

/** A step that does not close by itself: why, and settings that would close it. */
export interface StepSeam {
  readonly words: string;
  /** Whole loops after which it closes; absent if it never does. */
  readonly loops?: number;
  readonly repairs: readonly { readonly words: string; readonly values: Readonly<Record<string, StoredValue>> }[];
}

export function defineStep<const P extends Params>(step: StepKind<P>): StepKind<P> {
  return step;
}

/** Applies a step to a shape. Throws StepProblem if the shape lacks what the step needs; an empty shape stays empty. */
export function applyStep(kind: StepKind, values: Evaluated<Params>, mesh: Mesh, context: StepContext): Mesh {
  if (kind.group !== 'form' && mesh.connectivity.vertexCount === 0) return mesh;
  if (kind.needs === 'faces' && faceCount(mesh.connectivity) === 0)
    throw new StepProblem(
      `${kind.title} works on faces, and here are only curves; put a step before it that makes a surface of ` +
        'them, such as Wires, Sweep or Extrude.',
    );
  if (kind.needs === 'curves' && !mesh.connectivity.curves)
    throw new StepProblem(
      `${kind.title} works on curves, and there are none here; begin with an outline, a curve or a text, or ` +
        'put Edges to curves before it.',
    );
  return kind.evaluate(values, mesh, context);
}

/** What a step does with copies, as chosen or by default; null if it takes them as they are. */
export function copiesAsOf(kind: StepKind, chosen?: CopiesAs): CopiesAs | null {
  if (kind.reads?.copies || kind.group === 'form') return null;
  const can = copiesChoices(kind);
  return chosen && can.includes(chosen) ? chosen : (kind.copiesAs ?? (can.includes('whole') ? 'whole' : 'each'));
}

/** The choices that a step offers. */
export function copiesChoices(kind: StepKind): readonly CopiesAs[] {
  return kind.group === 'deform' || kind.group === 'place' ? ['whole', 'each', 'one'] : ['each', 'one'];
}

/** Most faces that a step may make; more would not fit the memory of a common machine. */
export const MAX_FACES = 2_000_000;

export function checkFaces(faces: number, remedy: string): void {
  if (faces > MAX_FACES)
    throw new StepProblem(
      `This would make ${formatCount(faces)} faces; the most is ${formatCount(MAX_FACES)}. ${remedy}`,
    );
  checkCost('faces', faces, remedy);
}

/** "31k", "1.2M": counts at a glance. */
export function formatCount(n: number): string {
  if (n < 1000) return `${n}`;
  if (n < 1e6) return `${Number((n / 1e3).toPrecision(n < 1e4 ? 2 : 3))}k`;
  return `${Number((n / 1e6).toPrecision(2))}M`;
}

/** Two decimals, or two significant digits if that would leave nothing; without trailing zeros: for summaries. */
export function brief(x: number): string {
  return `${Number(Math.abs(x) < 0.1 ? x.toPrecision(2) : x.toFixed(2))}`;
}
