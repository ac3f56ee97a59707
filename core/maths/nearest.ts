/**
 * A k-d tree for nearest neighbours: split at the median along the longest side (J. L. Bentley, Multidimensional binary
 * search trees, Communications of the ACM 18, 1975), stored as one list of point indices. Building takes O(n log n), a
 * query O(log n) on average.
 */
export class NearestPoints {
  private readonly order: Uint32Array;
  private readonly axes: Uint8Array;

  /** @param points 3 numbers each; finite ones */
  constructor(private readonly points: Float32Array) {
    const n = points.length / 3;
    this.order = Uint32Array.from({ length: n }, (_, i) => i);
    this.axes = new Uint8Array(n);
    const stack: [number, number][] = [[0, n]];
    for (let top; (top = stack.pop()) !== undefined;) {
      const [from, to] = top;
      if (to - from < 2) continue;
      const middle = (from + to) >> 1;
      const axis = this.longestSide(from, to);
      this.select(from, to - 1, middle, axis);
      this.axes[middle] = axis;
      stack.push([from, middle], [middle + 1, to]);
    }
  }

  /** Squared distance to the nearest point; Infinity where there is none. */
  squared(x: number, y: number, z: number): number {
    const { points: p, order, axes } = this;
    const at = [x, y, z];
    let best = Infinity;
    // Ranges still to visit, each with a lower bound of its distance.
    const stack = [0, order.length, 0];
    while (stack.length > 0) {
      const least = stack.pop()!;
      const to = stack.pop()!;
      const from = stack.pop()!;
      if (from >= to || least >= best) continue;
      const middle = (from + to) >> 1;
      const o = 3 * order[middle];
      const d = (p[o] - x) ** 2 + (p[o + 1] - y) ** 2 + (p[o + 2] - z) ** 2;
      if (d < best) best = d;
      const axis = axes[middle];
      const away = at[axis] - p[o + axis];
      const beyond = Math.max(least, away * away);
      // The nearer side is visited first, so it is pushed last.
      if (away < 0) stack.push(middle + 1, to, beyond, from, middle, least);
      else stack.push(from, middle, beyond, middle + 1, to, least);
    }
    return best;
  }

  private longestSide(from: number, to: number): 0 | 1 | 2 {
    const low = [Infinity, Infinity, Infinity];
    const high = [-Infinity, -Infinity, -Infinity];
    for (let i = from; i < to; i++)
      for (let k = 0; k < 3; k++) {
        const x = this.points[3 * this.order[i] + k];
        if (x < low[k]) low[k] = x;
        if (x > high[k]) high[k] = x;
      }
    const [a, b, c] = high.map((h, k) => h - low[k]);
    return a >= b && a >= c ? 0 : b >= c ? 1 : 2;
  }

  /**
   * Quickselect: the element that belongs at `k` gets there, none greater before it, none smaller behind (C. A. R.
   * Hoare, Algorithm 65: Find, 1961).
   */
  private select(from: number, to: number, k: number, axis: number): void {
    const { points, order } = this;
    const of = (i: number) => points[3 * order[i] + axis];
    let [low, high] = [from, to];
    while (low < high) {
      const pivot = of((low + high) >> 1);
      let [i, j] = [low, high];
      while (i <= j) {
        while (of(i) < pivot) i++;
        while (of(j) > pivot) j--;
        if (i <= j) {
          [order[i], order[j]] = [order[j], order[i]];
          i++;
          j--;
        }
      }
      if (k <= j) high = j;
      else if (k >= i) low = i;
      else return;
    }
  }
}
