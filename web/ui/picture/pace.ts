/** Milliseconds within which a picture has to follow the one before for both to be of one movement. */
const MOVING = 250;
/** A drawing that takes longer is seen as a jerk; one that takes less leaves room for four times the pixels. */
const [SLOW, QUICK] = [50, 10];
/** Device pixels that one of the picture covers each way at most. */
const MOST = 4;

/**
 * How finely a picture is drawn while it moves: in fewer pixels where drawing is slow, so that it follows the hand. What
 * stands still, and what changes once, is always drawn whole.
 */
export class Pace {
  private coarse = 1;
  private began = 0;
  private ended = -Infinity;

  /** A drawing begins; gives how many device pixels one of the picture is to cover each way: 1, 2 or 4. */
  begin(now: number): number {
    this.began = now;
    return now - this.ended < MOVING ? this.coarse : 1;
  }

  /** It stands in the canvas. */
  end(now: number): void {
    const took = now - this.began;
    this.ended = now;
    if (took > SLOW) this.coarse = Math.min(MOST, 2 * this.coarse);
    else if (took < QUICK) this.coarse = Math.max(1, this.coarse / 2);
  }
}
