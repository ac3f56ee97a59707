import type { FinishAt, SceneAt } from '@maypole/core/evaluate/scene';

export type ViewMode = 'shaded' | 'edges' | 'points' | 'normals' | 'uv' | 'clay';

/** A shape as the view needs it; nothing here knows of steps. */
export interface Drawable {
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
}

/** One picture to draw. */
export interface ViewFrame {
  readonly ribbons: readonly { readonly id: string; readonly shape: Drawable; readonly finish: FinishAt }[];
  readonly scene: SceneAt;
  readonly mode: ViewMode;
  /** Width / height of the delivered picture; it is fitted into the viewport. */
  readonly outputAspect: number;
}
