import type { CopyChannels } from '@maypole/core/shape/copy-channels';
import type { DistanceField } from '@maypole/core/shape/fractals/field';
import type { PictureAt } from '@maypole/core/evaluate/picture-at';

export type ViewMode = 'shaded' | 'edges' | 'points' | 'normals' | 'uv' | 'clay' | 'exposure' | 'sharp';

/** Instances of one shape. */
export interface Instances {
  /** 16 numbers per copy, column-major. */
  readonly matrices: Float32Array;
  /** Overrides of the finish per copy. */
  readonly channels?: CopyChannels;
  /** The ribbon whose finish they use; absent, that of their own ribbon. */
  readonly materialRibbon?: string;
  /** Index among all copies of the ribbon. */
  readonly numbers: Uint32Array;
  /** Order in the repeat, 0…1. */
  readonly order: Float32Array;
  /** Integer that seeds the copy's randomness. */
  readonly ids: Uint32Array;
}

/** A ribbon as the view needs it. */
export interface Drawable {
  readonly key: string;
  readonly parts: readonly DrawablePart[];
}

/** What drawing needs of a connectivity. */
export interface DrawableTopology {
  readonly key: string;
  /** 3 numbers per triangle. */
  readonly triangles: Uint32Array;
  /** 2 numbers per polygon edge. */
  readonly edges: Uint32Array;
  /** 2 numbers per curve segment. */
  readonly lines: Uint32Array;
  readonly groups: readonly { readonly slot: number; readonly start: number; readonly count: number }[];
  /** 2 numbers per triangle corner. */
  readonly uv?: Float32Array;
  readonly closed: boolean;
}

/** A shape as the view needs it; nothing here knows about steps. */
export interface DrawablePart {
  readonly key: string;
  readonly topology: DrawableTopology;
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** Ambient occlusion of each vertex, 0…1; absent if not needed. */
  readonly occlusion?: Float32Array;
  readonly instances?: Instances;
  /** The distance field its faces were made from, if it is drawn as such. */
  readonly field?: DistanceField;
}

/** A picture to draw: core's description, and how it is viewed. */
export interface ViewFrame extends PictureAt<Drawable> {
  readonly mode: ViewMode;
  /** The backdrop is left out, for files with transparency. */
  readonly seeThrough?: boolean;
}
