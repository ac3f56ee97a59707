import type { FrameOrder } from '@maypole/core/output/frame-order';
import type { FileReport } from '@maypole/render/check/report';
import { z } from 'zod';
import { amount, body, text, whole } from './fields';

/** State of a render. */
export type RenderState = 'frames' | 'files' | 'done' | 'failed' | 'cancelled';
/** State of one of its frames or files. */
export type WorkState = 'waiting' | 'leased' | 'done' | 'failed';

export const renderBody = body({
  piece: z.uuid('This is not the number of a piece.'),
  revision: whole('“revision”', 1),
  estimate: z.boolean().default(false),
});

export const renderChange = body({
  paused: z.boolean().optional(),
  cancelled: z.literal(true).optional(),
  retry: z.literal(true).optional(),
  priority: whole('“priority”', -9, 9).optional(),
  /** The render to be placed before; null for the end. */
  before: z.uuid().nullable().optional(),
  /** Index of a frame that is wanted at once. */
  first: whole('“first”', 0, 20_000).optional(),
});
export type RenderChange = z.infer<typeof renderChange>;

const frameImageName = z.enum(['solid', 'clear', 'half', 'float', 'half-passes', 'float-passes']);
export const claimBody = body({
  id: z.string().regex(/^[\w-]{8,64}$/, 'A worker is known by 8 to 64 letters, digits and dashes.'),
  name: text('The name of a worker', 80, 1),
  light: z.enum(['quick', 'true']),
  threads: whole('“threads”', 1, 1024),
  maker: text('“maker”', 80),
});
export const leaseId = z.uuid('This is not the number of a lease.');
const digest = z.string().regex(/^[0-9a-f]{64}$/);
const kept = body({ sha256: digest, bytes: whole('“bytes”', 1), content: digest.optional() });
export const doneBody = body({
  sheets: z.partialRecord(frameImageName, kept),
  seconds: amount('“seconds”', 0, 1e7),
  memory: amount('“memory”', 0, 1e7),
});
export const failedBody = body({ message: text('“message”', 2000), forGood: z.boolean() });
export const frameImageParam = frameImageName;
/** Largest frame image in bytes. */
export const MAX_SHEET = 150 * 1024 * 1024;

export interface FileSummary {
  readonly id: string;
  readonly kind: string;
  readonly state: WorkState;
  readonly share: number;
  /** Names; the first of many. */
  readonly name: string | null;
  readonly count: number;
  readonly bytes: number | null;
  readonly report: FileReport | null;
  readonly message: string | null;
}

/** Frames that another machine made a second time. */
export interface MadeAgain {
  /** How many were equal in every byte. */
  readonly same: number;
  /** Those that were not: who made each first, and who again. */
  readonly other: readonly { readonly frame: number; readonly first: string; readonly again: string }[];
}

export interface RenderSummary {
  readonly id: string;
  readonly pieceId: string | null;
  readonly name: string;
  readonly revision: number;
  readonly state: RenderState;
  readonly paused: boolean;
  readonly estimate: boolean;
  readonly priority: number;
  readonly order: FrameOrder;
  readonly frames: number;
  readonly loopFrames: number;
  readonly done: number;
  readonly failed: number;
  readonly leased: number;
  readonly takenOver: number;
  /** Bytes of its frames and files. */
  readonly bytes: number;
  /** Seconds until its frames are done; null if unknown. */
  readonly left: number | null;
  /** Seconds of work that went into its frames. */
  readonly spent: number;
  /** Mean seconds per frame, and most megabytes. */
  readonly each: number | null;
  readonly memory: number | null;
  readonly message: string | null;
  readonly again: MadeAgain;
  readonly createdAt: string;
  readonly finishedAt: string | null;
  readonly files: readonly FileSummary[];
}

export interface PartSummary {
  readonly index: number;
  readonly frame: number;
  readonly state: WorkState;
  readonly worker: string | null;
  readonly seconds: number | null;
  readonly takenOver: boolean;
  readonly message: string | null;
  readonly doneAt: string | null;
}

export interface WorkerSummary {
  readonly id: string;
  readonly name: string;
  readonly light: 'quick' | 'true';
  readonly threads: number;
  readonly by: string;
  /** Its renderer version differs, so that it gets no work. */
  readonly other: boolean;
  /** Seconds since its last request. */
  readonly silent: number;
}

export interface RenderDetail extends RenderSummary {
  readonly parts: readonly PartSummary[];
  /** By worker: frames, and seconds spent on them. */
  readonly shares: readonly { readonly worker: string; readonly frames: number; readonly seconds: number }[];
}

export interface Queue {
  readonly renders: readonly RenderSummary[];
  readonly workers: readonly WorkerSummary[];
  /** Free bytes on the disk of renders, and bytes taken by them. */
  readonly free: number;
  readonly used: number;
  /** Why rendering is paused, in words: the disk is full. */
  readonly waits: string | null;
}
