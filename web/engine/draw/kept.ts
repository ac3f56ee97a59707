/** Something that occupies a worker or a graphics context while it exists. */
interface Costly {
  /** Whether it has become unusable: its graphics device is lost. */
  readonly lost?: boolean;
  dispose(): void;
}

/**
 * Keeps something expensive while it is used: made on first use, used by one caller at a time, and disposed of after a
 * while without use.
 *
 * @example
 * const drawers = new Kept(() => Offscreen.create(96, 96, false), 5000);
 * const picture = await drawers.use(async (offscreen) => …);
 */
export class Kept<T extends Costly> {
  private there: Promise<T> | null = null;
  private queue: Promise<unknown> = Promise.resolve();
  private idle: ReturnType<typeof setTimeout> | undefined;
  private held = false;

  /** @param idleMs milliseconds without use before it is disposed of */
  constructor(
    private readonly make: () => Promise<T>,
    private readonly idleMs: number,
  ) {}

  /** Works with it after earlier callers are done. Errors of the work are passed on. */
  use<R>(work: (it: T) => Promise<R>): Promise<R> {
    const mine = this.queue.then(async () => {
      clearTimeout(this.idle);
      // If it could not be made, the next caller tries again.
      this.there ??= this.make().catch((error: unknown) => {
        this.there = null;
        throw error;
      });
      const it = await this.there;
      try {
        return await work(it);
      } finally {
        if (it.lost) this.giveBack();
      }
    });
    const after = () => {
      clearTimeout(this.idle);
      if (!this.held) this.idle = setTimeout(() => this.giveBack(), this.idleMs);
    };
    this.queue = mine.then(after, after);
    return mine;
  }

  /** Keeps it, used or not, until `letGo`. */
  hold(): void {
    this.held = true;
    clearTimeout(this.idle);
  }

  /** Ends `hold`: it is disposed of once its users are done. */
  letGo(): void {
    if (!this.held) return;
    this.held = false;
    this.queue = this.queue.then(() => this.giveBack());
  }

  private giveBack(): void {
    const { there } = this;
    this.there = null;
    void there?.then(
      (it) => it.dispose(),
      () => undefined,
    );
  }
}
