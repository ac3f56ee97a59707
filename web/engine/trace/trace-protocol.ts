import type { Piece } from '@maypole/core/piece/piece';
import type { Detail } from '@maypole/core/steps/step';
import type { TraceSettings } from '@maypole/core/trace/paths/tracer';
import type { Tile, TileResult } from '@maypole/core/trace/paths/tile-result';

/** A frame to trace. */
export interface TraceJob {
  readonly id: number;
  readonly piece: Piece;
  readonly frame: number;
  readonly detail: Detail;
  readonly settings: TraceSettings;
  /** Most samples of a pixel. */
  readonly samples: number;
}

/** A picture traced by several workers, each its own share of the tiles. */
export interface PictureJob extends TraceJob {
  /** Index of this worker, and how many there are. */
  readonly index: number;
  readonly of: number;
  /** Point of interest, 0…1 from the left and from the top: it is traced first. */
  readonly place: readonly [number, number];
}

export type ToTracer =
  | { readonly type: 'picture'; readonly job: PictureJob }
  /** A whole frame, shown at once. */
  | { readonly type: 'frame'; readonly job: TraceJob; readonly denoise: boolean }
  | { readonly type: 'stop' }
  /** Pictures are laid out by this worker for all others, or by another: see lent-scene.ts. */
  | { readonly type: 'lend'; readonly to: readonly MessagePort[] }
  | { readonly type: 'borrow'; readonly from: MessagePort };

export type FromTracer =
  /** A row of coarse pixels; see core/trace/paths/coarse.ts. */
  | { readonly type: 'coarse'; readonly id: number; readonly row: number; readonly sums: Float64Array }
  | {
      readonly type: 'part';
      readonly id: number;
      readonly tile: Tile;
      /** Samples of its pixels, unless they have converged with fewer. */
      readonly samples: number;
      readonly part: TileResult;
    }
  | { readonly type: 'frame'; readonly id: number; readonly frame: number; readonly picture: ImageBitmap }
  | { readonly type: 'failed'; readonly id: number; readonly message: string };
