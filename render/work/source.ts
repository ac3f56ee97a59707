import type { FrameOrder } from '@maypole/core/output/frame-order';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { KeptFrameImage } from '../frame/keep';

/** A frame that is to be made. */
export interface PartWork {
  readonly render: string;
  /** Place among the frames of the render. */
  readonly index: number;
  readonly frame: number;
  readonly fingerprint: string;
  readonly order: FrameOrder;
  readonly sheets: readonly FrameImageName[];
  /** By which the worker is known to have it. */
  readonly lease: string;
  /** It is there already, and is only to be compared: nothing of it is brought but what its sheets come to. */
  readonly again?: boolean;
}

export interface PartFigures {
  readonly seconds: number;
  /** Megabytes that the worker took at most. */
  readonly memory: number;
}

/** Where work comes from and results go: the database itself, or a server elsewhere. */
export interface WorkSource {
  /** The next frame; undefined where there is none just now. */
  claim(): Promise<PartWork | undefined>;
  /** The document of a render with the files it names. */
  piece(work: PartWork): Promise<string>;
  /**
   * Keeps a frame for as long as it takes, whatever else keeps this thread busy: until what it gives is called. `lost`
   * is called where the frame is not wanted any more.
   */
  keep(work: PartWork, lost: () => void): () => void;
  /** Gives a frame back that is not gone on with: it waits again at once, and this was no try. */
  giveBack(work: PartWork): Promise<void>;
  put(work: PartWork, sheet: FrameImageName, bytes: Uint8Array): Promise<KeptFrameImage>;
  done(work: PartWork, sheets: Partial<Record<FrameImageName, KeptFrameImage>>, figures: PartFigures): Promise<void>;
  /** @param forGood another worker would fail, too */
  failed(work: PartWork, message: string, forGood: boolean): Promise<void>;
}

/** Seconds between signs of life. */
export const RENEW_SECONDS = 10;
