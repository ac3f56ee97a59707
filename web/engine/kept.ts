/** Something that costs a worker or a graphics context for as long as it is there. */
export interface Costly {
  /** Whether it cannot be used any more: its graphics device is gone. */
  readonly lost?: boolean;
  dispose(): void;
}

/**
 * Keeps something costly while it is used: made when it is first asked for, used by one after the other, and given back
 * once nobody has used it for a while.
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

  /** @param idleMs milliseconds without use after which it is given back */
  constructor(
    private readonly make: () => Promise<T>,
    private readonly idleMs: number,
  ) {}

  /** Does some work with it once those who asked before are done. What the work throws is thrown on. */
  use<R>(work: (it: T) => Promise<R>): Promise<R> {
    const mine = this.queue.then(async () => {
      clearTimeout(this.idle);
      // What could not be made is tried again by the next.
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

  /** It is not given back, used or not, until `letGo`. */
  hold(): void {
    this.held = true;
    clearTimeout(this.idle);
  }

  /** Ends `hold`: it is given back once those who use it are done. */
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
