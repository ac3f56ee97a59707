import { defaultsOf, type StoredValue } from '../declare/params';
import { finishParams } from '../scene/finish';
import { sceneParts, type ScenePart } from '../scene/scene';
import { stepKind } from '../steps/index';
import type { CopiesAs } from '../steps/step';
import type { Loop } from '../time/loop';

/** The version this code writes. */
export const PIECE_VERSION = 1;

export type Values = Readonly<Record<string, StoredValue>>;

/** One operation in a ribbon. */
export interface StepDoc {
  readonly id: string;
  readonly kind: string;
  readonly on: boolean;
  readonly values: Values;
  /** What it does with copies, where that is not what its kind does anyway. */
  readonly copies?: CopiesAs;
  /** The step of a paired ribbon with which this one goes along; see pair.ts. */
  readonly twin?: string;
  /** Only in linked pieces: the ribbons that values name, by parameter. Never stored. */
  readonly others?: Readonly<Record<string, RibbonDoc>>;
}

/** One chain: a form and the steps that change it, with its finish. */
export interface RibbonDoc {
  readonly id: string;
  readonly name: string;
  /** Colour of the band in the interface, '#rrggbb'. */
  readonly colour: string;
  readonly on: boolean;
  /** The ribbon with which this one's finish goes along. */
  readonly twin?: string;
  readonly finish: Values;
  readonly steps: readonly StepDoc[];
}

/** One piece, as docs/piece-format.md describes it. */
export interface Piece {
  readonly maypole: 'piece';
  readonly version: typeof PIECE_VERSION;
  readonly name: string;
  readonly loop: Loop;
  /** Size of the delivered picture in pixels. */
  readonly output: { readonly width: number; readonly height: number };
  readonly scene: Readonly<Record<ScenePart, Values>>;
  readonly ribbons: readonly RibbonDoc[];
}

/** Band colours, given to ribbons in turn. */
export const RIBBON_COLOURS = ['#D9483B', '#3A86B7', '#E8A317', '#4C8C4A', '#7D4F9E'] as const;

/** A short identifier, unique enough within a piece; `random` gives 0 ≤ x < 1. */
export function newId(random: () => number = Math.random): string {
  let id = '';
  while (id.length < 8) id += Math.floor(random() * 36).toString(36);
  return id;
}

export function newStep(kind: string, values: Values = {}, id = newId()): StepDoc {
  return { id, kind, on: true, values: { ...defaultsOf(stepKind(kind).params), ...values } };
}

/** A ribbon with a form in it. `index` picks its colour and name. */
export function newRibbon(form: string, index: number, name = `Ribbon ${index + 1}`): RibbonDoc {
  const colour = RIBBON_COLOURS[index % RIBBON_COLOURS.length];
  return { id: newId(), name, colour, on: true, finish: { ...defaultsOf(finishParams), colour }, steps: [newStep(form)] };
}

export function defaultScene(): Piece['scene'] {
  return Object.fromEntries(Object.entries(sceneParts).map(([name, part]) => [name, defaultsOf(part.params)])) as Piece['scene'];
}

/** A fresh piece: four seconds at 25 frames a second, with no ribbon yet. */
export function newPiece(name = 'Untitled'): Piece {
  return {
    maypole: 'piece',
    version: PIECE_VERSION,
    name,
    loop: { frames: 100, fps: 25 },
    output: { width: 1080, height: 1080 },
    scene: defaultScene(),
    ribbons: [],
  };
}
