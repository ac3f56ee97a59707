/** One fact about a finished file. */
export interface Fact {
  readonly title: string;
  readonly found: string;
  /** What it should be, if it is not. */
  readonly wanted?: string;
}

/**
 * Differences between successive pictures of a file, round the seam. Means over pixels and channels, in 8-bit values.
 */
export interface Round {
  /** From each picture to the next; the last leads to the first. */
  readonly file: readonly number[];
  /** The same for the frames that it was made from. */
  readonly made: readonly number[];
  /** Indices of the seams: after each time the loop is played. */
  readonly seams: readonly number[];
  /** Peak signal-to-noise ratio of the file against its frames in dB: the worst picture, 99 if all are equal. */
  readonly worstPsnr: number;
  /** Red, green and blue: mean excess of the file over its frames. */
  readonly colour?: readonly number[];
  /** How much brighter the first picture is than the last, beyond the frames. */
  readonly brightness: number;
}

/** A remedy: values of the output. */
export interface Repair {
  readonly title: string;
  readonly values: Readonly<Record<string, string | number | boolean>>;
}

/** What was found when a finished output was read back. */
export interface FileReport {
  readonly sound: boolean;
  /** As a sentence. */
  readonly words: string;
  readonly facts: readonly Fact[];
  readonly round?: Round;
  readonly repairs?: readonly Repair[];
}
