/** What has been found out about a tile. */
export interface Worked {
  /** SUMS numbers a pixel, rows from the top. */
  readonly sums: Float64Array<ArrayBuffer>;
  /** FEATURES numbers a pixel. */
  readonly features: Float32Array<ArrayBuffer>;
  /** As many numbers a pixel as `passNumbers` says; absent where they are not wanted. */
  readonly passes?: Float32Array<ArrayBuffer>;
  /** Pixels that have got samples this time. */
  readonly worked: number;
}

/** A rectangle of pixels of a picture. */
export interface Tile {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Numbers kept of each pixel: sums of red, green, blue, of how much is covered, of squares of brightness; of how many
 * samples; sums of light that covers nothing; and of brightness that was above the limit, and is left out.
 */
export const SUMS = 10;
/** Where the number of samples stands, and what was left out. */
export const COUNT = 5;
export const LEFT_OUT = 9;

/**
 * Numbers kept of what is seen in a pixel, through clear glass and in mirrors too: sums of base colour, normal and metres
 * away; of how many samples something stands in, and of how many it is told what.
 */
export const FEATURES = 9;
export const FOUND = 7;
export const TOLD = 8;

/** Bytes that a pixel takes while it is worked on. */
export const pixelBytes = (passSize: number) => 8 * SUMS + 4 * FEATURES + 4 * passSize;
