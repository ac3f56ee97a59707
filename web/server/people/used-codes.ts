/** Milliseconds for which a code may be accepted: its own thirty seconds, and those before and after. */
const RIGHT = 90_000;

/** Recently used codes: each is accepted once (RFC 6238, 5.2). */
export class UsedCodes {
  private readonly used = new Map<string, number>();
  constructor(private readonly now: () => number = Date.now) {}

  /** Marks a code as used; false if it was before. */
  claim(person: string, code: string): boolean {
    for (const [key, at] of this.used)
      if (at + RIGHT < this.now()) this.used.delete(key);
      else break;
    const key = `${person} ${code}`;
    if (this.used.has(key)) return false;
    this.used.set(key, this.now());
    return true;
  }
}

declare global {
  var maypoleUsedCodes: UsedCodes | undefined;
}
export function usedCodes(): UsedCodes {
  return (globalThis.maypoleUsedCodes ??= new UsedCodes());
}
