/** An axis-aligned box; an empty one is inverted. */
export interface Box {
  readonly min: number[];
  readonly max: number[];
}

export function emptyBox(): Box {
  return { min: [Infinity, Infinity, Infinity], max: [-Infinity, -Infinity, -Infinity] };
}

/**
 * Grows a box by another one transformed by the matrix at `o`: its centre, and its half extents by the absolute matrix
 * (J. Arvo, “Transforming axis-aligned bounding boxes”, 1990).
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
