/** Counts how often something was tried again of late. */
export class Tries {
  /** @param limit so many `times` within so many milliseconds (`within`) */
  constructor({ times, within }, now = Date.now) {
    Object.assign(this, { times, within, now, made: [] });
  }

  /** Whether it may be tried once more, which is counted. */
  another() {
    const now = this.now();
    this.made = this.made.filter((at) => now - at < this.within);
    if (this.made.length >= this.times) return false;
    this.made.push(now);
    return true;
  }
}
