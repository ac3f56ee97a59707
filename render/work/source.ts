import type { FrameOrder } from '@maypole/core/output/frame-order';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { KeptFrameImage } from '../frame/keep';

/** A frame to make. */
export interface PartWork {
  readonly render: string;
  /** Position among the frames of the render. */
  readonly index: number;
  readonly frame: number;
  readonly fingerprint: string;
  readonly order: FrameOrder;
  readonly sheets: readonly FrameImageName[];
  /** Identifies the worker that has it. */
  readonly lease: string;
  /** It exists already and is only to be compared: only digests of its frame images are sent. */
  readonly again?: boolean;
}

export interface PartFigures {
  readonly seconds: number;
  /** Peak memory of the worker, in megabytes. */
  readonly memory: number;
}

/** Where work comes from and results go: the database, or a remote server. */
export interface WorkSource {
  /** The next frame; undefined if there is none just now. */
  claim(): Promise<PartWork | undefined>;
  /** The document of a render, with the files it names. */
  piece(work: PartWork): Promise<string>;
  /**
   * Renews a frame's lease for as long as it takes, however busy this thread is, until the returned function is called.
   * Calls `lost` if the frame is no longer wanted.
   */
  keep(work: PartWork, lost: () => void): () => void;
  /** Returns an unfinished frame: it waits again at once, and this does not count as an attempt. */
  giveBack(work: PartWork): Promise<void>;
  put(work: PartWork, sheet: FrameImageName, bytes: Uint8Array): Promise<KeptFrameImage>;
  done(work: PartWork, sheets: Partial<Record<FrameImageName, KeptFrameImage>>, figures: PartFigures): Promise<void>;
  /** @param forGood another worker would fail too */
  failed(work: PartWork, message: string, forGood: boolean): Promise<void>;
}

/** Seconds between renewals. */
export const RENEW_SECONDS = 10;
