import type { Piece } from '@maypole/core/piece/piece';
import type { Detail } from '@maypole/core/steps/step';
import type { TraceSettings } from '@maypole/core/trace/tracer';
import type { Tile, Worked } from '@maypole/core/trace/worked';

/** A frame to be traced. */
export interface TraceJob {
  readonly id: number;
  readonly piece: Piece;
  readonly frame: number;
  readonly detail: Detail;
  readonly settings: TraceSettings;
  /** Samples that a pixel is to have at most. */
  readonly samples: number;
}

/** A picture to be traced by several workers, each its own share of the tiles. */
export interface PictureJob extends TraceJob {
  /** Which of how many workers this one is. */
  readonly index: number;
  readonly of: number;
  /** Where one looks, 0…1 from the left and from the top: it is traced first. */
  readonly place: readonly [number, number];
}

export type ToTracer =
  | { readonly type: 'picture'; readonly job: PictureJob }
  /** A whole frame, to be shown at once. */
  | { readonly type: 'frame'; readonly job: TraceJob; readonly denoise: boolean }
  | { readonly type: 'stop' }
  /** Pictures are laid out by this worker for all of them, or by another: see lent-scene.ts. */
  | { readonly type: 'lend'; readonly to: readonly MessagePort[] }
  | { readonly type: 'borrow'; readonly from: MessagePort };

export type FromTracer =
  /** One of the rows of pixels that are traced first; see coarse.ts of core/trace. */
  | { readonly type: 'coarse'; readonly id: number; readonly row: number; readonly sums: Float64Array }
  | {
      readonly type: 'part';
      readonly id: number;
      readonly tile: Tile;
      /** Samples that its pixels have, if they are not good with fewer. */
      readonly samples: number;
      readonly part: Worked;
    }
  | { readonly type: 'frame'; readonly id: number; readonly frame: number; readonly picture: ImageBitmap }
  | { readonly type: 'failed'; readonly id: number; readonly message: string };
