import type { Mesh } from '../shape/mesh';
import type { Image } from './image';
import type { LightPicture } from './light';

/** A file of a piece, decoded. */
export type Asset =
  | { readonly type: 'shape'; readonly mesh: Mesh }
  | { readonly type: 'picture'; readonly picture: Picture }
  | { readonly type: 'image'; readonly image: Image }
  | { readonly type: 'light'; readonly light: LightPicture };

/** Brightness 0…1, row by row from the top. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}
