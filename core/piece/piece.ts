import { newId, newItem, type Item, type PartDoc, type PatternDoc, type Values } from '../declare/items';
import { newFinish, type FinishDoc } from '../finish/documents';
import { FACE_WORDS, type FaceKind } from '../finish/surface';
import { renderings } from '../output/rendering';
import type { PixelSize } from '../output/kind';
import { sceneLists, type SceneList } from '../scene/index';
import { stepKind } from '../steps/index';
import type { CopiesAs } from '../steps/step';
import type { Loop } from '../time/loop';

/**
 * The version this code writes. Every declared addition raises it, so that an older Maypole says “newer” and not
 * “faulty”.
 */
export const PIECE_VERSION = 10;

/** One operation in a ribbon. */
export interface StepDoc extends Item {
  /** How it treats copies, if not as its kind does by default. */
  readonly copies?: CopiesAs;
  /** Distinguishes its randomness from that of other steps, besides its seeds: a whole number from 0; absent, 0. */
  readonly chance?: number;
  /** The step of a linked ribbon that it changes with; see pair.ts. */
  readonly twin?: string;
  /** In linked pieces only: the ribbons that values name, by parameter. Never stored. */
  readonly others?: Readonly<Record<string, RibbonDoc>>;
}

/** A chain: a form and the steps that change it, with its finishes. */
export interface RibbonDoc {
  readonly id: string;
  readonly name: string;
  /** Colour of its band in the interface, '#rrggbb'. */
  readonly colour: string;
  readonly on: boolean;
  /** The ribbon whose finishes change with its own. */
  readonly twin?: string;
  /** At most one per face kind; the first is the form's. */
  readonly finishes: readonly FinishDoc[];
  readonly steps: readonly StepDoc[];
}

/** One piece, as docs/piece-format.md describes it. */
export interface Piece {
  readonly maypole: 'piece';
  readonly version: typeof PIECE_VERSION;
  readonly name: string;
  readonly loop: Loop;
  /** Size of the delivered picture. */
  readonly format: PixelSize;
  readonly scene: Readonly<Record<SceneList, readonly Item[]>>;
  /** How frames are made for outputs. */
  readonly render: Item;
  readonly outputs: readonly Item[];
  readonly ribbons: readonly RibbonDoc[];
}

/** Band colours, given to ribbons in turn. */
export const RIBBON_COLOURS = ['#D9483B', '#3A86B7', '#E8A317', '#4C8C4A', '#7D4F9E'] as const;

/** Largest chance of a step. */
export const MAX_CHANCE = 999_999;

/** A random chance, unlikely to be another step's. */
export function newChance(random: () => number = Math.random): number {
  return 1 + Math.floor(random() * MAX_CHANCE);
}

/** A step with its declared defaults; one that a person adds also has a `chance` of its own. */
export function newStep(kind: string, values: Values = {}, id = newId()): StepDoc {
  return newItem(stepKind(kind), values, id);
}

/** A ribbon with a form. `index` selects its colour and name. */
export function newRibbon(form: string, index: number, name = `Ribbon ${index + 1}`): RibbonDoc {
  const colour = RIBBON_COLOURS[index % RIBBON_COLOURS.length];
  return { id: newId(), name, colour, on: true, finishes: [newFinish('main', colour)], steps: [newStep(form)] };
}

/** One camera, light and backdrop, with their defaults. */
export function defaultScene(): Piece['scene'] {
  const first = (list: SceneList) => [newItem(sceneLists[list].kinds.all[0])];
  return {
    cameras: first('cameras'),
    lights: first('lights'),
    backdrop: first('backdrop'),
    ground: [],
    air: [],
    picture: [],
  };
}

/** A new piece: four seconds at 25 frames per second, without ribbons. */
export function newPiece(name = 'Untitled'): Piece {
  return {
    maypole: 'piece',
    version: PIECE_VERSION,
    name,
    loop: { frames: 100, fps: 25 },
    format: { width: 1080, height: 1080 },
    scene: defaultScene(),
    render: newItem(renderings.all[0], {}, 'render'),
    outputs: [],
    ribbons: [],
  };
}

/** The active camera: the first that is on, else the first. */
export function cameraOf(piece: Pick<Piece, 'scene'>): Item {
  const { cameras } = piece.scene;
  return cameras.find((c) => c.on) ?? cameras[0];
}

/** A ribbon's finish for a face kind, whether on or not. */
export function finishOf(ribbon: Pick<RibbonDoc, 'finishes'>, of: FaceKind = 'main'): FinishDoc | undefined {
  return ribbon.finishes.find((f) => f.of === of);
}

export { FACE_WORDS, newFinish, newId, newItem };
export type { FinishDoc, Item, PartDoc, PatternDoc, Values };
