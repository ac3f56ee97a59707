import type { Evaluated, Params, StoredValue } from '../declare/params';
import { faceCount, type Mesh } from '../shape/mesh';
import type { Clock } from '../time/loop';

export type Detail = 'draft' | 'final';
export type StepGroup = 'form' | 'curve' | 'detail' | 'deform' | 'build' | 'solid' | 'place';

export interface StepContext {
  readonly clock: Clock;
  readonly detail: Detail;
  /** The finished shape of another ribbon, by the parameter that names it; undefined where there is none. */
  other?(param: string): Mesh | undefined;
  /** What is kept under a fingerprint; undefined while it is not there. */
  asset?(fingerprint: string): Asset | undefined;
}

/** Files kept beside a piece, read into what steps can use. */
export type Asset = { readonly type: 'shape'; readonly mesh: Mesh } | { readonly type: 'picture'; readonly picture: Picture };

/** Brightness 0…1 of a picture, row by row from the top. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
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
  /** True where the result changes with time even when all values stand still (noise with a rate). */
  changesByItself?(values: Evaluated<P>): boolean;
  /** Why it does not close by its nature, and what would; null where it does. Values are those at f = 0. */
  seam?(values: Evaluated<P>): StepSeam | null;
  /** What there must be to work on; without it the shape is passed through and the card says so. */
  readonly needs?: 'faces' | 'curves';
  /** Fetches a library it works with; until it is there, evaluation gives a StepProblem. */
  readonly load?: () => Promise<void>;
  readonly loaded?: () => boolean;
  /** True where draft and final detail differ. */
  readonly hasDetail?: boolean;
  /**
   * The new shape. Forms ignore `input` (an empty mesh). Throws StepProblem when it cannot work on
   * its input; the input is passed through then and the card says why.
   */
  evaluate(values: Evaluated<P>, input: Mesh, context: StepContext): Mesh;
}

/** A step that does not close by its nature: why, and settings with which it would. */
export interface StepSeam {
  readonly words: string;
  readonly repairs: readonly { readonly words: string; readonly values: Readonly<Record<string, StoredValue>> }[];
}

export function defineStep<const P extends Params>(step: StepKind<P>): StepKind<P> {
  return step;
}

/** Why a step cannot do its work, in words for the user. */
export class StepProblem extends Error {
  override readonly name = 'StepProblem';
}

/** The step's work on a shape. Throws StepProblem where there is not what it needs; nothing stays nothing. */
export function applyStep(kind: StepKind, values: Evaluated<Params>, mesh: Mesh, context: StepContext): Mesh {
  if (kind.group !== 'form' && mesh.connectivity.vertexCount === 0) return mesh;
  if (kind.needs === 'faces' && faceCount(mesh.connectivity) === 0)
    throw new StepProblem(`${kind.title} works on faces, and here are only curves; put a step before it that makes a surface of them, such as Wires, Sweep or Extrude.`);
  if (kind.needs === 'curves' && !mesh.connectivity.curves)
    throw new StepProblem(`${kind.title} works on curves, and there are none here; begin with an outline, a curve or a text, or put Edges to curves before it.`);
  return kind.evaluate(values, mesh, context);
}

/** Faces a step may make; more would not fit the memory of a common machine. */
export const MAX_FACES = 2_000_000;

export function checkFaces(faces: number, remedy: string): void {
  if (faces > MAX_FACES)
    throw new StepProblem(`This would make ${formatCount(faces)} faces; the most is ${formatCount(MAX_FACES)}. ${remedy}`);
}

/** "31k", "1.2M": counts at a glance. */
export function formatCount(n: number): string {
  if (n < 1000) return `${n}`;
  if (n < 1e6) return `${Number((n / 1e3).toPrecision(n < 1e4 ? 2 : 3))}k`;
  return `${Number((n / 1e6).toPrecision(2))}M`;
}

/** Up to three significant decimals, without trailing zeros: for summaries. */
export function brief(x: number): string {
  return `${Number(x.toFixed(2))}`;
}
