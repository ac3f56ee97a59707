/** Something that was looked at in a finished file. */
export interface Fact {
  readonly title: string;
  readonly found: string;
  /** What it should be, where it is not. */
  readonly wanted?: string;
}

/** How the pictures of a file go on from one to the next, round the seam. Means over pixels and colours, in values of 8 bits. */
export interface Round {
  /** From each picture to the next; the last leads to the first. */
  readonly file: readonly number[];
  /** The same of the frames that it was made of. */
  readonly made: readonly number[];
  /** Where the seams are among the steps: after each time that the loop is played. */
  readonly seams: readonly number[];
  /** How far pictures of the file are from what they were made of: peak signal to noise in dB, the worst of them, and 99 where all are alike. */
  readonly worstPsnr: number;
  /** Red, green and blue: how much more of them the file has than what it was made of, in the mean of all pictures. */
  readonly colour?: readonly number[];
  /** How much brighter the first picture is than the last, beyond what the frames have. */
  readonly brightness: number;
}

/** A way to make it better: values of the output. */
export interface Repair {
  readonly title: string;
  readonly values: Readonly<Record<string, string | number | boolean>>;
}

/** What was found when a finished output was read back. */
export interface FileReport {
  readonly sound: boolean;
  /** In a sentence. */
  readonly words: string;
  readonly facts: readonly Fact[];
  readonly round?: Round;
  readonly repairs?: readonly Repair[];
}
