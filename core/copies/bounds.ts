/** A box along the axes; an empty one is upside down. */
export interface Box {
  readonly min: number[];
  readonly max: number[];
}

export function emptyBox(): Box {
  return { min: [Infinity, Infinity, Infinity], max: [-Infinity, -Infinity, -Infinity] };
}

/**
 * Widens a box so that it holds another under the matrix at `o`: the middle of that, and half its sides taken
 * through the absolute matrix.
 */
export function growBy(
  box: Box,
  other: { readonly min: readonly number[]; readonly max: readonly number[] },
  m: ArrayLike<number>,
  o: number,
): void {
  for (let k = 0; k < 3; k++) {
    let middle = m[o + 12 + k];
    let half = 0;
    for (let c = 0; c < 3; c++) {
      middle += (m[o + 4 * c + k] * (other.max[c] + other.min[c])) / 2;
      half += (Math.abs(m[o + 4 * c + k]) * (other.max[c] - other.min[c])) / 2;
    }
    box.min[k] = Math.min(box.min[k], middle - half);
    box.max[k] = Math.max(box.max[k], middle + half);
  }
}
