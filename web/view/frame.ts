import type { CopyChannels } from '@maypole/core/copies/channels';
import type { DistanceField } from '@maypole/core/shape/fractals/field';
import type { PictureAt } from '@maypole/core/evaluate/picture-at';

export type ViewMode = 'shaded' | 'edges' | 'points' | 'normals' | 'uv' | 'clay' | 'exposure' | 'sharp';

/** Where one shape stands many times. */
export interface Instances {
  /** 16 numbers a copy, a matrix by columns. */
  readonly matrices: Float32Array;
  /** What copies have of their own in place of their finish. */
  readonly channels?: CopyChannels;
  /** The ribbon whose finish they wear; absent, that of the ribbon they are in. */
  readonly wears?: string;
  /** Its number among all copies of the ribbon. */
  readonly numbers: Uint32Array;
  /** Its place in the repeat, 0…1. */
  readonly order: Float32Array;
  /** A whole number that chance tells it by. */
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
  /** 3 numbers a triangle. */
  readonly triangles: Uint32Array;
  /** 2 numbers an edge of the polygons. */
  readonly edges: Uint32Array;
  /** 2 numbers a piece of a curve. */
  readonly lines: Uint32Array;
  readonly groups: readonly { readonly slot: number; readonly start: number; readonly count: number }[];
  /** 2 numbers a corner of a triangle. */
  readonly uv?: Float32Array;
  readonly closed: boolean;
}

/** A shape as the view needs it; nothing here knows of steps. */
export interface DrawablePart {
  readonly key: string;
  readonly topology: DrawableTopology;
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** How deep each vertex lies between other faces, 0…1; absent where nothing goes by it. */
  readonly crevices?: Float32Array;
  readonly instances?: Instances;
  /** The form its faces were made of, where it is shown as it is. */
  readonly field?: DistanceField;
}

/** One picture to draw: what core describes, and how it is looked at. */
export interface ViewFrame extends PictureAt<Drawable> {
  readonly mode: ViewMode;
  /** A backdrop that is not there is left out of the picture, as files that can be see-through want it. */
  readonly seeThrough?: boolean;
}
