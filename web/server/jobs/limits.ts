/** What one job may use before it is ended. docs/limits.md states these for users. */
export interface JobLimits {
  /** Seconds. */
  readonly seconds: number;
  /** Megabytes of its whole process. */
  readonly megabytes: number;
  /** Remedy told after “This took more than 20 seconds”. */
  readonly remedy: string;
  /** A slow job: one process is always kept for fast ones, and a client has one slow job under way at a time. */
  readonly heavy?: true;
}

const SMALLER = 'Nothing was changed. Make it smaller, or split it, and try again.';

/** Everything computed outside the thread that answers requests. */
export const JOBS = {
  savePiece: { seconds: 20, megabytes: 768, remedy: SMALLER },
  keepTake: { seconds: 20, megabytes: 768, remedy: SMALLER },
  createPiece: { heavy: true, seconds: 60, megabytes: 1536, remedy: SMALLER },
  duplicatePiece: { seconds: 20, megabytes: 768, remedy: SMALLER },
  exportPiece: {
    heavy: true,
    seconds: 60,
    megabytes: 1536,
    remedy: 'Take its files out of it, and export them by themselves.',
  },
  keepAsset: { heavy: true, seconds: 60, megabytes: 1536, remedy: SMALLER },
  sheetMovie: {
    heavy: true,
    seconds: 60,
    megabytes: 1024,
    remedy: 'Make a sheet of fewer variations, or save it as a picture.',
  },
  createRender: { heavy: true, seconds: 60, megabytes: 1024, remedy: SMALLER },
  beginAnew: { heavy: true, seconds: 600, megabytes: 1024, remedy: 'It is tried again tomorrow.' },
  keepTidy: { heavy: true, seconds: 600, megabytes: 768, remedy: 'It is tried again tomorrow.' },
  keepLook: { seconds: 20, megabytes: 768, remedy: SMALLER },
} as const satisfies Record<string, JobLimits>;

export type JobName = keyof typeof JOBS;

/** Most waiting jobs of a client. */
export const WAITING_OF_ONE = 64;
/** Milliseconds after which an idle process is ended, except one. */
export const IDLE = 120_000;
