import { inOrder } from '../piece/adding';
import { defaultsOf, type Params } from '../declare/params';
import { finishParts } from '../finish/parts/index';
import {
  newItem,
  newPiece,
  newRibbon,
  newStep,
  type Piece,
  type RibbonDoc,
  type StepDoc,
  type Values,
} from '../piece/piece';
import { sceneLists, type SceneList } from '../scene/index';
import { motionKind } from '../time/motions/index';
import type { MotionDoc } from '../time/motion';

/** A piece to begin with: small, closing, and made to be changed. */
export interface Start {
  readonly id: string;
  readonly title: string;
  readonly help: string;
  /** The values to change first: the first step of that kind in the piece, and which of its values. */
  readonly first: readonly { readonly step: string; readonly param: string }[];
  make(): Piece;
}

type Listed = readonly (readonly [kind: string, values: Values])[];

export interface Recipe {
  readonly name: string;
  readonly frames?: number;
  readonly camera?: Values;
  readonly scene?: Partial<Record<Exclude<SceneList, 'cameras'>, Listed>>;
  readonly ribbons: readonly RibbonDoc[];
}

const listed = (list: SceneList, items: Listed) =>
  items.map(([kind, values]) => {
    const found = sceneLists[list].kinds.all.find((k) => k.kind === kind);
    if (!found) throw new RangeError(`${sceneLists[list].title} has no “${kind}”.`);
    return newItem(found, values);
  });

/** A piece from a recipe: whatever it does not name is as in an empty one. */
export function pieceOf({ name, frames = 100, camera = {}, scene = {}, ribbons }: Recipe): Piece {
  const plain = newPiece(name);
  const lists = Object.entries(scene).map(([list, items]) => [list, listed(list as SceneList, items)]);
  return {
    ...plain,
    loop: { frames, fps: 25 },
    scene: { ...plain.scene, ...Object.fromEntries(lists), cameras: listed('cameras', [['orbit', camera]]) },
    ribbons,
  };
}

/** A ribbon of steps, with the parts of its finish. Its band takes the colour of its position. */
export function ribbon(
  index: number,
  name: string,
  steps: readonly (readonly [kind: string, values?: Values])[],
  finish: Listed,
): RibbonDoc {
  const plain = newRibbon(steps[0][0], index, name);
  const [main] = plain.finishes;
  const parts = inOrder(finish.map(([kind, values]) => newItem(finishParts.get(kind), values)));
  const made: StepDoc[] = steps.map(([kind, values]) => newStep(kind, values));
  return { ...plain, finishes: [{ ...main, parts }], steps: made };
}

/** A sine between two values, a whole number of cycles per loop. */
export const wave = (low: number, high: number, more: Readonly<Record<string, unknown>> = {}): MotionDoc => ({
  motion: 'wave',
  ...(defaultsOf(motionKind('wave').params as Params) as Record<string, unknown>),
  low,
  high,
  ...more,
});

/** A linear motion that gains so much per loop. */
export const adding = (from: number, adds: number): MotionDoc => ({
  motion: 'keys',
  adds,
  keys: [{ at: 0, value: from, to: 'linear' }],
});

/** Finishes that several of them share. */
export const lacquer = (colour: string, roughness = 35): Listed => [
  ['base', { colour, roughness }],
  ['metal', { metalness: 0 }],
  ['coat', { coat: 100, roughness: 4 }],
];
export const matt = (colour: string, roughness = 60): Listed => [
  ['base', { colour, roughness }],
  ['metal', { metalness: 0 }],
];
export const metal = (colour: string, roughness = 22): Listed => [
  ['base', { colour, roughness }],
  ['metal', { metalness: 100 }],
];
