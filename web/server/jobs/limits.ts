/** What one job may take before it is ended. docs/limits.md states these for users. */
export interface JobLimits {
  /** Seconds. */
  readonly seconds: number;
  /** Megabytes, all of its process. */
  readonly megabytes: number;
  /** What is said where it takes more, after “This took more than 20 seconds”. */
  readonly remedy: string;
  /**
   * It may take long: one process is always left for those that do not, and of one client one such job is under way at
   * a time.
   */
  readonly heavy?: true;
}

const SMALLER = 'Nothing was changed. Make it smaller, or split it, and try again.';

/** Everything that is worked out away from the thread that answers requests. */
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

/** Jobs of one client that may wait at once. */
export const WAITING_OF_ONE = 64;
/** Milliseconds after which a process that had nothing to do is ended, but for one. */
export const IDLE = 120_000;
