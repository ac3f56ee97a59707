import type { PackedFrame } from './pack';

/** Messages to the drawing worker. Draw requests are answered in order. */
export type ToStage =
  | { readonly type: 'begin'; readonly canvas: OffscreenCanvas }
  | { readonly type: 'size'; readonly width: number; readonly height: number }
  /** Whether the device is alive; answered by `drawn`, or by `failed` if it is lost. */
  | { readonly type: 'sound'; readonly id: number }
  | {
      readonly type: 'draw';
      readonly id: number;
      /** Absent: the previous frame, for a further sub-frame. */
      readonly frame?: PackedFrame;
      /** Sub-frames from `first` (inclusive) to `last` (exclusive), of `of`. */
      readonly first: number;
      readonly last: number;
      readonly of: number;
      /** Device pixels per pixel of the picture, each way. */
      readonly coarse: number;
      /** Send the picture back. */
      readonly copy: boolean;
    };

export type FromStage =
  | { readonly type: 'ready'; readonly subframes: { readonly edges: number; readonly soft: number } }
  | { readonly type: 'none'; readonly words: string }
  | { readonly type: 'lost' }
  | { readonly type: 'drawn'; readonly id: number; readonly picture?: ImageBitmap }
  | { readonly type: 'failed'; readonly id: number; readonly message: string };

/** Said in place of a picture that would be empty. */
export const DEVICE_GONE = 'The graphics device went away while a picture was drawn.';
