import type { PixelSize } from '@maypole/core/output/kind';
import type { Loop } from '@maypole/core/time/loop';

/** Why a delivery cannot be made, in words for the user. */
export class DeliveryProblem extends Error {
  override readonly name = 'DeliveryProblem';
}

/** What is to be encoded. */
export interface EncodeJob extends PixelSize {
  /** Name without an ending. */
  readonly base: string;
  /** Name of the piece. */
  readonly title: string;
  readonly loop: Loop;
  /** Frames in playing order. */
  readonly frames: readonly number[];
  /** Where each frame is drawn before it is added. */
  readonly canvas: HTMLCanvasElement;
}

/** Takes pictures one by one and makes a file of them. */
export interface Encoding {
  /** @param index which of the frames it is, from 0 */
  add(frame: number, index: number): Promise<void>;
  finish(): Promise<Blob>;
  cancel(): Promise<void>;
}

/** The pair of a kind of output that makes its files in the browser. */
export interface Encoder {
  /** Throws a DeliveryProblem where this browser cannot make it. */
  open(job: EncodeJob): Promise<Encoding>;
}
