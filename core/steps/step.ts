import type { Evaluated, Params, StoredValue } from '../declare/params';
import type { Mesh } from '../shape/mesh';
import type { Clock } from '../time/loop';

export type Detail = 'draft' | 'final';
export type StepGroup = 'form' | 'detail' | 'deform' | 'build' | 'place';

export interface StepContext {
  readonly clock: Clock;
  readonly detail: Detail;
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
