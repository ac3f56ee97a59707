import type { PackedFrame } from './pack';

/** To the worker that draws. Drawings are answered in order. */
export type ToStage =
  | { readonly type: 'begin'; readonly canvas: OffscreenCanvas }
  | { readonly type: 'size'; readonly width: number; readonly height: number }
  /** Whether the device is there; answered by `drawn`, or by `failed` where it is gone. */
  | { readonly type: 'sound'; readonly id: number }
  | {
      readonly type: 'draw';
      readonly id: number;
      /** Absent: the frame before once more, for a further sub-frame. */
      readonly frame?: PackedFrame;
      /** Sub-frames from `first` up to, without, `last`, of `of`. */
      readonly first: number;
      readonly last: number;
      readonly of: number;
      /** Device pixels that one of the picture covers each way. */
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

/** What is said in place of a picture that would be empty. */
export const DEVICE_GONE = 'The graphics device went away while a picture was drawn.';
