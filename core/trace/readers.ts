/** Where a memory that threads share has the number of its scene, and how many threads read it. */
const [SCENE, READERS] = [0, 1];
/** Bytes of both. */
export const READERS_BYTES = 8;

/**
 * Who reads a scene in a memory that threads share. One thread lays scenes out, one after the other; the others read one
 * in short stretches of work, and what is read is not touched. A lock of many readers and one writer (P. J. Courtois et
 * al., “Concurrent control with readers and writers”, 1971), of which a reader goes away when its scene is gone.
 */
export class Readers {
  /** @param numbers of the memory, from its beginning */
  constructor(private readonly numbers: Int32Array) {}

  /** The scene that is there. */
  get scene(): number {
    return Atomics.load(this.numbers, SCENE);
  }

  /** Whether that scene is still there; it then is until one leaves. */
  enter(scene: number): boolean {
    Atomics.add(this.numbers, READERS, 1);
    if (this.scene === scene) return true;
    this.leave();
    return false;
  }

  leave(): void {
    if (Atomics.sub(this.numbers, READERS, 1) === 1) Atomics.notify(this.numbers, READERS);
  }

  /**
   * Ends the scene that is there: nobody enters it any more, and those that read it have left after this.
   *
   * @param patience milliseconds that are waited at most
   * @returns false where somebody reads it still: a thread that has much to do, or has died
   */
  end(patience: number): boolean {
    Atomics.add(this.numbers, SCENE, 1);
    for (;;) {
      const reading = Atomics.load(this.numbers, READERS);
      if (reading === 0) return true;
      if (Atomics.wait(this.numbers, READERS, reading, patience) === 'timed-out') return false;
    }
  }
}
