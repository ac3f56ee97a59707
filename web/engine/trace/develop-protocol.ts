import type { SceneAt } from '@maypole/core/evaluate/picture-at';
import type { Tile, TileResult } from '@maypole/core/trace/paths/tile-result';

/** What is shown: the picture, or its sample counts. */
export type Shows = 'picture' | 'samples';

/** How it is shown. */
export interface Develop {
  readonly denoise: boolean;
  readonly shows: Shows;
}

export type ToDeveloper =
  | {
      readonly type: 'begin';
      readonly id: number;
      readonly width: number;
      readonly height: number;
      /** Share of width and height that the output frame fills. */
      readonly frame: { readonly width: number; readonly height: number };
      readonly scene: Pick<SceneAt, 'camera' | 'backdrop' | 'picture'>;
      /** Fingerprints of files that the scene names. */
      readonly files: readonly string[];
      /** Most samples of a pixel. */
      readonly samples: number;
      readonly how: Develop;
    }
  | { readonly type: 'coarse'; readonly id: number; readonly row: number; readonly sums: Float64Array }
  | { readonly type: 'part'; readonly id: number; readonly tile: Tile; readonly part: TileResult }
  | { readonly type: 'how'; readonly how: Develop };

export type FromDeveloper =
  | {
      readonly type: 'picture';
      readonly id: number;
      readonly picture: ImageBitmap;
      /** How it was developed, and from how many parts: the current request may differ. */
      readonly how: Develop;
      readonly parts: number;
    }
  | { readonly type: 'failed'; readonly id: number; readonly message: string };
