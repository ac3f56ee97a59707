/** Result of tracing a tile. */
export interface TileResult {
  /** SUMS numbers per pixel, rows from the top. */
  readonly sums: Float64Array<ArrayBuffer>;
  /** FEATURES numbers per pixel. */
  readonly features: Float32Array<ArrayBuffer>;
  /** `passNumbers` numbers per pixel; absent if not wanted. */
  readonly passes?: Float32Array<ArrayBuffer>;
  /** Pixels that got samples this time. */
  readonly sampledPixels: number;
}

/** A rectangle of pixels. */
export interface Tile {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Sums of a pixel: red, green, blue, coverage, squared luminance; number of samples; radiance that covers nothing
 * (three numbers); luminance removed by the firefly clamp.
 */
export const SUMS = 10;
/** Offsets of the number of samples, and of the clamped luminance. */
export const COUNT = 5;
export const CLAMPED = 9;

/**
 * Sums of denoiser features of a pixel, through clear glass and in mirrors: albedo, normal and distance; number of
 * samples that hit something, and number with valid features.
 */
export const FEATURES = 9;
export const FOUND = 7;
export const VALID = 8;

/** Bytes that a pixel takes while it is traced. */
export const pixelBytes = (passSize: number) => 8 * SUMS + 4 * FEATURES + 4 * passSize;
