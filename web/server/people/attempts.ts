import { isIPv6 } from 'node:net';
import { AppError } from '../http/app-error';

/**
 * Attempts allowed within a quarter of an hour: on one account from one address, from one address on any account, on
 * one account from everywhere, and from a browser its owner has used before.
 */
const MOST = { pair: 10, client: 20, account: 100, known: 10 };
const WINDOW = 15 * 60_000;

/** The network of an address: the first 64 bits of an IPv6 address are one connection. */
export function networkOf(client: string): string {
  if (!isIPv6(client)) return client;
  const [head, tail = ''] = client.split('::');
  const left = head.split(':').filter(Boolean);
  const right = client.includes('::') ? tail.split(':').filter(Boolean) : [];
  const all = [...left, ...Array<string>(Math.max(0, 8 - left.length - right.length)).fill('0'), ...right];
  return `${all
    .slice(0, 4)
    .map((x) => parseInt(x, 16).toString(16))
    .join(':')}::/64`;
}

/** Who tries to sign in. */
interface Trying {
  /** Address it comes from. */
  readonly client: string;
  readonly account: string;
  /** Whether the browser has proved an earlier sign-in to this account. */
  readonly known?: boolean;
}

/** Sign-in attempts, counted before the password is checked, so that many at once count like many in a row. */
export class Attempts {
  private readonly made = new Map<string, number[]>();
  constructor(private readonly now: () => number = Date.now) {}

  private recent(key: string): number[] {
    const from = this.now() - WINDOW;
    const times = (this.made.get(key) ?? []).filter((t) => t > from);
    if (times.length > 0) this.made.set(key, times);
    else this.made.delete(key);
    return times;
  }

  private keys({ client, account, known }: Trying): readonly (readonly [string, number])[] {
    // Guessing strangers do not lock out a known browser.
    if (known) return [[`k ${account}`, MOST.known]];
    const network = networkOf(client);
    return [
      [`p ${network} ${account}`, MOST.pair],
      [`c ${network}`, MOST.client],
      [`a ${account}`, MOST.account],
    ];
  }

  /**
   * Counts an attempt; call before checking the password.
   *
   * @throws AppError 429 after too many
   */
  begin(trying: Trying): void {
    if (this.made.size > 10_000) for (const key of [...this.made.keys()]) this.recent(key);
    const keys = this.keys(trying);
    const waits = keys.map(([key, most]) => {
      const times = this.recent(key);
      return times.length < most ? 0 : times[times.length - most] + WINDOW - this.now();
    });
    const wait = Math.max(...waits);
    if (wait > 0)
      throw new AppError(
        429,
        `There were too many tries that failed. Wait ${Math.ceil(wait / 60_000)} minutes, or ask the owner for a new invitation.`,
      );
    for (const [key] of keys) this.made.set(key, [...this.recent(key), this.now()]);
  }

  /** A successful attempt was no guess: it is not counted, nor are earlier ones on this account. */
  succeeded(trying: Trying): void {
    for (const [key] of this.keys(trying)) {
      const times = this.recent(key);
      if (key.startsWith('c ')) this.made.set(key, times.slice(0, -1));
      else if (!key.startsWith('a ')) this.made.delete(key);
      else this.made.set(key, times.slice(0, -1));
    }
  }
}

declare global {
  var maypoleAttempts: Attempts | undefined;
}

export function attempts(): Attempts {
  return (globalThis.maypoleAttempts ??= new Attempts());
}
