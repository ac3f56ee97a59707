/** How far a result of the graphics card is from that of core. */
export interface Checked {
  readonly name: string;
  /** The largest difference: of noise, nominally −1…1; of a distance, in sizes of the form; of light, relative. */
  readonly difference: number;
  /** The tolerance. */
  readonly limit: number;
  /** Share of points beyond it: a cell border may fall on either side of a pixel. */
  readonly share: number;
}

/** Tolerance between card and core. */
export const LIMIT = 1e-3;
