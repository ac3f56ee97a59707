/** Where a shared memory keeps the number of its scene, and its number of readers. */
const [SCENE, READERS] = [0, 1];
/** Bytes of both. */
export const READERS_BYTES = 8;

/**
 * Readers–writer lock of a shared scene. One thread lays scenes out, one after the other; the others read in short
 * stretches, during which nothing is overwritten (P. J. Courtois et al., “Concurrent control with readers and writers”,
 * 1971). A reader leaves for good when its scene has been replaced.
 */
export class SceneLock {
  /** @param numbers of the memory, from its beginning */
  constructor(private readonly numbers: Int32Array) {}

  /** Number of the current scene. */
  get scene(): number {
    return Atomics.load(this.numbers, SCENE);
  }

  /** Whether that scene is still current; it then stays until every reader leaves. */
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
   * Ends the current scene: nobody enters it any more, and all readers have left.
   *
   * @param patience longest wait in milliseconds
   * @returns false if somebody still reads it: a busy thread, or a dead one
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
