/** How far a thing that the graphics card draws is from what core works out. */
export interface Checked {
  readonly name: string;
  /** The largest difference: of noise, which is nominally −1…1; of a distance, in sizes; of light, as a share of it. */
  readonly difference: number;
  /** The most it may be. */
  readonly limit: number;
  /** The share of places at which it is larger: a border of cells may fall on either side of a pixel. */
  readonly share: number;
}

/** The most that card and core may differ in. */
export const LIMIT = 1e-3;
