/** Milliseconds within which consecutive pictures count as one movement. */
const MOVING = 250;
/** Drawing above the first stutters; drawing below the second leaves room for four times the pixels. */
const [SLOW, QUICK] = [50, 10];
/** Most device pixels per pixel of the picture, each way. */
const MOST = 4;

/**
 * Resolution of a moving picture: lower if drawing is slow, so that it follows the hand. Still pictures, and single
 * changes, are drawn at full resolution.
 */
export class Pace {
  private coarse = 1;
  private began = 0;
  private ended = -Infinity;

  /** Starts a drawing; returns the device pixels per pixel of the picture, each way: 1, 2 or 4. */
  begin(now: number): number {
    this.began = now;
    return now - this.ended < MOVING ? this.coarse : 1;
  }

  /** The picture is in the canvas. */
  end(now: number): void {
    const took = now - this.began;
    this.ended = now;
    if (took > SLOW) this.coarse = Math.min(MOST, 2 * this.coarse);
    else if (took < QUICK) this.coarse = Math.max(1, this.coarse / 2);
  }
}
