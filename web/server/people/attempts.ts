import { AppError } from '../http/app-error';

/** Tries that may fail within a quarter of an hour, of one address and for one account. */
const MOST = { client: 20, account: 10 };
const WINDOW = 15 * 60_000;

/** Failed tries to come in, by whom and for what. */
export class Attempts {
  private readonly failed = new Map<string, number[]>();
  constructor(private readonly now: () => number = Date.now) {}

  private recent(key: string): number[] {
    const from = this.now() - WINDOW;
    const times = (this.failed.get(key) ?? []).filter((t) => t > from);
    if (times.length > 0) this.failed.set(key, times);
    else this.failed.delete(key);
    return times;
  }

  /** @throws AppError 429 where there were too many */
  check(client: string, account: string): void {
    if (this.failed.size > 10_000) for (const key of [...this.failed.keys()]) this.recent(key);
    const waits = (
      [
        [`c ${client}`, MOST.client],
        [`a ${account}`, MOST.account],
      ] as const
    ).map(([key, most]) => {
      const times = this.recent(key);
      return times.length < most ? 0 : times[times.length - most] + WINDOW - this.now();
    });
    const wait = Math.max(...waits);
    if (wait > 0)
      throw new AppError(
        429,
        `There were too many tries that failed. Wait ${Math.ceil(wait / 60_000)} minutes, or ask the owner for a new invitation.`,
      );
  }

  note(client: string, account: string): void {
    for (const key of [`c ${client}`, `a ${account}`]) this.failed.set(key, [...this.recent(key), this.now()]);
  }

  /** Whoever has come in has not been guessing. */
  forget(account: string): void {
    this.failed.delete(`a ${account}`);
  }
}

declare global {
  var maypoleAttempts: Attempts | undefined;
}

export function attempts(): Attempts {
  return (globalThis.maypoleAttempts ??= new Attempts());
}
