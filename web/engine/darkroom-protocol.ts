import type { SceneAt } from '@maypole/core/evaluate/picture-at';
import type { Tile, Worked } from '@maypole/core/trace/worked';

/** What of a traced picture is shown: itself, or where samples went. */
export type Shows = 'picture' | 'samples';

/** How it is shown. */
export interface Develop {
  readonly denoise: boolean;
  readonly shows: Shows;
}

export type ToDarkroom =
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
      /** Samples that a pixel has at most. */
      readonly samples: number;
      readonly how: Develop;
    }
  | { readonly type: 'coarse'; readonly id: number; readonly row: number; readonly sums: Float64Array }
  | { readonly type: 'part'; readonly id: number; readonly tile: Tile; readonly part: Worked }
  | { readonly type: 'how'; readonly how: Develop };

export type FromDarkroom =
  | {
      readonly type: 'picture';
      readonly id: number;
      readonly picture: ImageBitmap;
      /** How it was made, and of how many parts: what is asked for by now may be another. */
      readonly how: Develop;
      readonly parts: number;
    }
  | { readonly type: 'failed'; readonly id: number; readonly message: string };
