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

/** What a step does with copies that come in: moves them whole, works on each by itself, or makes one form of them first. */
export type CopiesAs = 'whole' | 'each' | 'one';

/**
 * What a step is given to work with. `clock`, `detail` and what reads other moments are there as the step declares that
 * it reads them; without it the clock stands at 0 and the detail is final.
 */
export interface StepContext {
  readonly clock: Clock;
  readonly detail: Detail;
  /** The finished shape of another ribbon, by the parameter that names it; undefined where there is none. */
  other?(param: string): Mesh | undefined;
  /** The same with its copies as a list, some whole frames later or, below 0, earlier. */
  otherAt?(param: string, frames: number): Mesh | undefined;
  /** The identifier of another ribbon, by the parameter that names it; undefined where there is none. */
  ribbonOf?(param: string): string | undefined;
  /** What is kept under a fingerprint; undefined while it is not there. */
  asset?(fingerprint: string): Asset | undefined;
  /** The shape that comes in, some whole frames later or, below 0, earlier. */
  inputAt?(frames: number): Mesh;
  /** Some of this step's values at a place of the loop, as a share of it; any real number. */
  valuesAt?(share: number, names: readonly string[]): Evaluated<Params>;
  /** Whether some of this step's values move. */
  moves?(names: readonly string[]): boolean;
  /** Equal texts: the same step on the same chain, whatever the moment. */
  readonly definition?: string;
}

/**
 * A step, declared once in a file of its own. Schema, panel, add menu, defaults and docs follow
 * from this; the evaluation is pure.
 */
export interface StepKind<P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  /** One plain sentence for the add menu. */
  readonly help: string;
  /** Name of the drawing in the knot; the interface maps it to a picture. */
  readonly icon: string;
  readonly group: StepGroup;
  readonly params: P;
  /** A few words for the closed card, from values at the playhead. */
  summary(values: Evaluated<P>): string;
  /** What its result depends on besides its values and what comes in; see reads.ts. */
  readonly reads?: Reads<P>;
  /** Why it does not close by its nature, and what would; null where it does. Values are those at f = 0. */
  seam?(values: Evaluated<P>, frames: number): StepSeam | null;
  /** Settings with which it may close where its shape is seen not to; each is tried before it is offered. */
  closings?(values: Evaluated<P>): StepSeam['repairs'];
  /** What there must be to work on; without it the shape is passed through and the card says so. */
  readonly needs?: 'faces' | 'curves';
  /** Fetches a library it works with; until it is there, evaluation gives a StepProblem. */
  readonly load?: () => Promise<void>;
  readonly loaded?: () => boolean;
  /**
   * Whether its result has copies, by its values as they are stored and by whether copies came in; absent, it
   * has where it takes copies as they are.
   */
  copiesAfter?(values: Readonly<Record<string, StoredValue>>, before: boolean): boolean;
  /** What it does with copies unless the user chooses; absent, it works on each by itself. */
  readonly copiesAs?: CopiesAs;
  /** How much of a whole copy it moves. */
  readonly carries?: Carries;
  /** Where a choice has a value, further values are those of the nearest step of its kind before it. */
  readonly shares?: { readonly where: string; readonly is: string; readonly names: readonly string[] };
  /**
   * The new shape. Forms ignore `input` (an empty mesh). Throws StepProblem when it cannot work on
   * its input; the input is passed through then and the card says why.
   */
  evaluate(values: Evaluated<P>, input: Mesh, context: StepContext): Mesh;
  /** Does a row of such steps on many copies at once, as one after the other would. */
  readonly together?: {
    /** Whether one may be done with others: it must not fail, and leave the number of copies as it is. */
    can(values: Evaluated<P>): boolean;
    /** Null where it cannot after all. */
    evaluate(list: readonly Evaluated<P>[], input: Mesh, context: StepContext): Mesh | null;
  };
}

/** A step that does not close by its nature: why, and settings with which it would. */
export interface StepSeam {
  readonly words: string;
  /** Whole loops after which it does close; absent where it never does. */
  readonly loops?: number;
  readonly repairs: readonly { readonly words: string; readonly values: Readonly<Record<string, StoredValue>> }[];
}

export function defineStep<const P extends Params>(step: StepKind<P>): StepKind<P> {
  return step;
}

/** The step's work on a shape. Throws StepProblem where there is not what it needs; nothing stays nothing. */
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

/** What a step does with copies, as chosen or by its kind; null where it takes them as they are. */
export function copiesAsOf(kind: StepKind, chosen?: CopiesAs): CopiesAs | null {
  if (kind.reads?.copies || kind.group === 'form') return null;
  const can = copiesChoices(kind);
  return chosen && can.includes(chosen) ? chosen : (kind.copiesAs ?? (can.includes('whole') ? 'whole' : 'each'));
}

/** Between what of these a step gives the choice. */
export function copiesChoices(kind: StepKind): readonly CopiesAs[] {
  return kind.group === 'deform' || kind.group === 'place' ? ['whole', 'each', 'one'] : ['each', 'one'];
}

/** Faces a step may make; more would not fit the memory of a common machine. */
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

/** Two decimals, or two digits where that would leave nothing; without trailing zeros: for summaries. */
export function brief(x: number): string {
  return `${Number(Math.abs(x) < 0.1 ? x.toPrecision(2) : x.toFixed(2))}`;
}
