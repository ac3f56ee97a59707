import type { Problem } from '@maypole/core/evaluate/ribbon';
import type { Piece, RibbonDoc } from '@maypole/core/piece/piece';
import type { Detail } from '@maypole/core/steps/step';
import type { Loop } from '@maypole/core/time/loop';

/** What drawing needs of a connectivity; sent once and then known by its key. */
export interface Topology {
  readonly key: string;
  readonly vertexCount: number;
  /** 3 numbers a triangle. */
  readonly triangles: Uint32Array;
  /** 2 numbers an edge of the polygons. */
  readonly edges: Uint32Array;
  readonly faces: number;
  readonly closed: boolean;
}

export interface EvaluateJob {
  readonly type: 'evaluate';
  readonly id: number;
  readonly ribbon: RibbonDoc;
  readonly loop: Loop;
  readonly frame: number;
  readonly detail: Detail;
  /** Shape keys whose buffers need not be sent again. */
  readonly have: readonly string[];
}

export interface EvaluateResult {
  readonly type: 'evaluated';
  readonly id: number;
  readonly key: string;
  readonly topologyKey: string;
  /** Present the first time this worker meets the connectivity. */
  readonly topology?: Topology;
  /** Absent where the receiver has the key already. */
  readonly positions?: Float32Array;
  readonly normals?: Float32Array;
  readonly problems: readonly Problem[];
  /** Milliseconds it took. */
  readonly took: number;
}

export interface JobFailed {
  readonly type: 'failed';
  readonly id: number;
  readonly message: string;
}

export type ToEvaluator = EvaluateJob | { readonly type: 'forget'; readonly topologies: readonly string[] };
export type FromEvaluator = EvaluateResult | JobFailed;

export interface SeamJob {
  readonly type: 'seam';
  readonly id: number;
  readonly piece: Piece;
  readonly detail: Detail;
  /** Also measure every step round the loop. */
  readonly steps: boolean;
}

export interface RibbonMeasure {
  readonly id: string;
  readonly name: string;
  readonly largest: number;
  readonly by: 'vertex' | 'set';
  /** Step sizes in metres; absent until measured. */
  readonly steps?: readonly number[];
}

export type FromSeam =
  | { readonly type: 'gaps'; readonly id: number; readonly ribbons: readonly RibbonMeasure[] }
  | { readonly type: 'progress'; readonly id: number; readonly done: number; readonly total: number }
  | { readonly type: 'steps'; readonly id: number; readonly ribbons: readonly RibbonMeasure[] }
  | JobFailed;
