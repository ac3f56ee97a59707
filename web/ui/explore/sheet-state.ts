import type { Signature } from '@maypole/core/explore/picture-distance';
import type { Variable } from '@maypole/core/explore/variables';
import type { Piece } from '@maypole/core/piece/piece';
import type { Strip } from '@/engine/draw/contact-sheet';

/** A variation on the sheet. */
export interface Tile {
  readonly id: number;
  /** Index of the variation; −1 for the original piece. */
  readonly index: number;
  readonly piece: Piece;
  readonly strip: Strip;
  readonly signatures: readonly Signature[];
  /** Distance from the original piece. */
  readonly distance: number;
  /** Position on the axes; absent on a sheet without axes. */
  readonly at?: readonly [number, number];
}

/** How the pieces of a sheet are found. */
export type Way =
  | { readonly type: 'spread' }
  | { readonly type: 'axes'; readonly across: string; readonly down: string }
  /** Between two pieces. */
  | { readonly type: 'mix'; readonly a: Piece; readonly b: Piece };

/** Number of variations left out, by reason: too similar, open at the seam, too expensive, far too large or small. */
export interface LeftOut {
  readonly alike: number;
  readonly open: number;
  readonly heavy: number;
  readonly size: number;
}
export interface SheetState {
  readonly open: boolean;
  /** The original piece. */
  readonly base: Piece;
  readonly variables: readonly Variable[];
  /** Keys of the variables that vary. */
  readonly chosen: ReadonlySet<string>;
  /** Keys of variables that stay as they are, even if chosen. */
  readonly locked: ReadonlySet<string>;
  readonly reach: number;
  readonly count: number;
  readonly seed: number;
  readonly way: Way;
  readonly tiles: readonly Tile[];
  readonly picked: readonly number[];
  /** Indices of the tiles of a stored sheet; null while they are searched for. */
  readonly throws: readonly number[] | null;
  /** Signatures of unwanted pictures: similar tiles are left out. */
  readonly unwanted: readonly (readonly Signature[])[];
  /** What is under way, in words; null if everything is there. */
  readonly working: string | null;
  readonly left: LeftOut;
  /** Whether tiles are drawn without shadows, air and effects. */
  readonly plain: boolean;
  /** The previous sheets. */
  readonly trail: readonly { readonly base: Piece; readonly way: Way; readonly reach: number }[];
}
