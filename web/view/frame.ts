import type { FinishAt, SceneAt } from '@maypole/core/evaluate/scene';

export type ViewMode = 'shaded' | 'edges' | 'points' | 'normals' | 'uv' | 'clay';

/** Where one shape stands many times. */
export interface Instances {
  /** 16 numbers a copy, a matrix by columns. */
  readonly matrices: Float32Array;
  /** 3 numbers a copy, sRGB 0…1; NaN for the finish's own. */
  readonly colours?: Float32Array;
  /** Roughness and metalness 0…1, 2 numbers a copy; NaN for the finish's own. */
  readonly looks?: Float32Array;
  readonly numbers: Uint32Array;
}

/** A ribbon as the view needs it. */
export interface Drawable {
  readonly key: string;
  readonly parts: readonly DrawablePart[];
}

/** A shape as the view needs it; nothing here knows of steps. */
export interface DrawablePart {
  readonly key: string;
  readonly topology: {
    readonly key: string;
    readonly triangles: Uint32Array;
    readonly edges: Uint32Array;
    readonly lines: Uint32Array;
    readonly groups: readonly { readonly slot: number; readonly start: number; readonly count: number }[];
    readonly uv?: Float32Array;
    readonly closed: boolean;
  };
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly instances?: Instances;
}

/** One picture to draw. */
export interface ViewFrame {
  readonly ribbons: readonly { readonly id: string; readonly shape: Drawable; readonly finish: FinishAt }[];
  readonly scene: SceneAt;
  readonly mode: ViewMode;
  /** Width / height of the delivered picture; it is fitted into the viewport. */
  readonly outputAspect: number;
}
