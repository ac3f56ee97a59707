/** A corner of the outline of a rolling body, seen from the side: ahead, and up. */
export type Corner = readonly [number, number];

/**
 * Convex hull, counter-clockwise, without points on its edges: A. M. Andrew's monotone chain (1979).
 *
 * @param tolerance how far a point may stand out of an edge and still count as on it
 */
export function convexHull(points: readonly Corner[], tolerance: number): Corner[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: readonly Corner[]) => {
    const chain: Corner[] = [];
    for (const p of list) {
      while (chain.length >= 2) {
        const [a, b] = [chain[chain.length - 2], chain[chain.length - 1]];
        const [ux, uy] = [p[0] - a[0], p[1] - a[1]];
        const out = (b[1] - a[1]) * ux - (b[0] - a[0]) * uy;
        // How far b lies outside the line from a to p.
        if (-out > tolerance * (Math.hypot(ux, uy) || 1)) break;
        chain.pop();
      }
      chain.push(p);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half([...sorted].reverse())];
}

/** A convex outline ready to roll to the right, over one corner after the other. */
export interface Roll {
  readonly sides: number;
  /**
   * After `steps` whole steps and a share 0 ≤ x < 1 of the next: how the body is turned (radians,
   * clockwise is negative), about which of its corners, and where on the ground that corner stands.
   */
  at(steps: number, x: number): { angle: number; corner: Corner; ground: number };
  /** How far the contact has come after so many whole steps. */
  travel(steps: number): number;
}

/** @param hull counter-clockwise; the side that faces down most is the one it begins on */
export function rollOf(hull: readonly Corner[]): Roll {
  const n = hull.length;
  const edge = (i: number): Corner => [hull[(i + 1) % n][0] - hull[i % n][0], hull[(i + 1) % n][1] - hull[i % n][1]];
  // The outward normal of a counter-clockwise edge (dx, dy) is (dy, −dx); facing down is dx > 0, dy = 0.
  let first = 0;
  let best = -Infinity;
  for (let i = 0; i < n; i++) {
    const [dx, dy] = edge(i);
    const down = dx / Math.hypot(dx, dy);
    if (down > best + 1e-9) [best, first] = [down, i];
  }
  const corners = Array.from({ length: n }, (_, i) => hull[(first + i + 1) % n]);
  const lengths = Array.from({ length: n }, (_, i) => Math.hypot(...edge(first + i)));
  const directions = Array.from({ length: n }, (_, i) => Math.atan2(edge(first + i)[1], edge(first + i)[0]));
  const exterior = directions.map((d, i) => {
    const turn = directions[(i + 1) % n] - d;
    return turn - 2 * Math.PI * Math.floor(turn / (2 * Math.PI));
  });
  const sums = [0];
  for (const l of lengths) sums.push(sums[sums.length - 1] + l);
  const start = hull[first][0];
  const travel = (steps: number) => {
    const rounds = Math.floor(steps / n);
    return rounds * sums[n] + sums[steps - rounds * n];
  };
  return {
    sides: n,
    travel,
    at(steps, x) {
      const i = ((steps % n) + n) % n;
      return {
        angle: -(directions[i] + x * exterior[i]),
        corner: corners[i],
        ground: start + travel(steps) + lengths[i],
      };
    },
  };
}
