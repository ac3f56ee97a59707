import type { DistanceField } from '@maypole/core/shape/fractals/field';
import type { DrawableTopology, Instances } from '@/view/stage/frame';
import type { CopiesNote, Problem } from '@maypole/core/evaluate/ribbon';
import type { Piece, RibbonDoc } from '@maypole/core/piece/piece';
import type { KnownClosure } from '@maypole/core/seam/check';
import type { Repair } from '@maypole/core/seam/finding';
import type { Proof } from '@maypole/core/seam/proof';
import type { Detail } from '@maypole/core/steps/step';
import type { Loop } from '@maypole/core/time/loop';

/** What drawing needs of a connectivity; sent once and then known by its key. */
export interface Topology extends DrawableTopology {
  readonly vertexCount: number;
  readonly faces: number;
}

export interface EvaluateJob {
  readonly type: 'evaluate';
  readonly id: number;
  /** Linked, so that it can be evaluated without the rest of the piece. */
  readonly ribbon: RibbonDoc;
  readonly loop: Loop;
  readonly frame: number;
  readonly detail: Detail;
  /** Compute ambient occlusion of the vertices. */
  readonly occlusion?: boolean;
  /** Expensive steps wait for consent. */
  readonly asksFirst?: boolean;
  /** Keys of shapes and parts whose buffers need not be sent again. */
  readonly have: readonly string[];
}

export type { Instances } from '@/view/stage/frame';

/** One shape of a ribbon, with its instances if it has copies. */
export interface PartResult {
  readonly key: string;
  readonly topologyKey: string;
  /** Present the first time this worker sends the connectivity. */
  readonly topology?: Topology;
  /** Absent if the receiver has the key already. */
  readonly positions?: Float32Array;
  readonly normals?: Float32Array;
  /** 0…1 per vertex, if requested. */
  readonly occlusion?: Float32Array;
  readonly instances?: Instances;
  /** The distance field its faces were made from. */
  readonly field?: DistanceField;
}

/** Shown of a copy when it is selected in the picture. */
export interface CopyFacts {
  readonly count: number;
  readonly places: number;
  readonly order: Float32Array;
  readonly late?: Float32Array;
}

export interface EvaluateResult {
  readonly type: 'evaluated';
  readonly id: number;
  readonly key: string;
  /** Absent if the receiver has everything of the key already. */
  readonly parts?: readonly PartResult[];
  readonly facts?: CopyFacts;
  readonly problems: readonly Problem[];
  readonly notes: readonly CopiesNote[];
}

export interface JobFailed {
  readonly type: 'failed';
  readonly id: number;
  readonly message: string;
}

export type ToEvaluator = EvaluateJob | { readonly type: 'forget'; readonly topologies: readonly string[] };
export type FromEvaluator =
  | EvaluateResult
  | JobFailed
  /** The step under way. */
  | { readonly type: 'at'; readonly id: number; readonly step: string };

/** Job of the seam worker: prove from the motions alone, or measure the shapes too. */
export interface SeamJob {
  readonly type: 'prove' | 'measure';
  readonly id: number;
  readonly piece: Piece;
  readonly detail: Detail;
  /** When measuring: also every step around the loop. */
  readonly steps: boolean;
}

export interface RibbonMeasure extends KnownClosure {
  /** Step sizes in metres; absent until measured. */
  readonly steps?: readonly number[];
}

export type FromSeam =
  | { readonly type: 'proof'; readonly id: number; readonly proof: Proof }
  | {
      readonly type: 'shapes';
      readonly id: number;
      readonly ribbons: readonly RibbonMeasure[];
      /** Repairs that use the shape's symmetry, by the key of the finding. */
      readonly symmetry: Readonly<Record<string, readonly Repair[]>>;
    }
  /** What is being done at the moment, in words. */
  | { readonly type: 'at'; readonly id: number; readonly doing: string }
  | { readonly type: 'progress'; readonly id: number; readonly done: number; readonly total: number }
  | { readonly type: 'steps'; readonly id: number; readonly ribbons: readonly RibbonMeasure[] }
  | JobFailed;
