/** Counts recent retries. */
export class Tries {
  /** @param limit at most `times` retries within `within` milliseconds */
  constructor({ times, within }, now = Date.now) {
    Object.assign(this, { times, within, now, made: [] });
  }

  /** Whether one more retry is allowed; counts it. */
  another() {
    const now = this.now();
    this.made = this.made.filter((at) => now - at < this.within);
    if (this.made.length >= this.times) return false;
    this.made.push(now);
    return true;
  }
}
