import type { Piece } from '@maypole/core/piece/piece';
import type { Detail } from '@maypole/core/steps/step';
import type { Tile, TraceSettings } from '@maypole/core/trace/tracer';

/** A picture to be traced by several workers, each its own share of the tiles. */
export interface TraceJob {
  readonly id: number;
  readonly piece: Piece;
  readonly frame: number;
  readonly detail: Detail;
  readonly settings: TraceSettings;
  /** Samples that every pixel is to have. */
  readonly samples: number;
  /** Which of how many workers this one is. */
  readonly index: number;
  readonly of: number;
}

export type ToTracer = { readonly type: 'begin'; readonly job: TraceJob } | { readonly type: 'stop' };

export type FromTracer =
  | {
      readonly type: 'part';
      readonly id: number;
      readonly tile: Tile;
      /** Samples that are in the sums. */
      readonly samples: number;
      readonly sums: Float64Array;
    }
  | { readonly type: 'failed'; readonly id: number; readonly message: string };
