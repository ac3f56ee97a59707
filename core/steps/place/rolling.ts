import { StepProblem } from '../step';

/** A vertex of the outline of a rolling body, seen from the side: ahead, and up. */
export type Corner = readonly [number, number];

/**
 * Convex hull, counter-clockwise, without points on its edges: A. M. Andrew's monotone chain (1979).
 *
 * @param tolerance how far a point may lie outside an edge and still count as on it
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

/** A convex outline that rolls to the right, side after side. */
export interface Roll {
  /** Sides that it comes to rest on; see FACET. */
  readonly sides: number;
  /**
   * After `steps` whole steps and a fraction 0 ≤ x < 1 of the next: the body's rotation (radians, clockwise is
   * negative), the vertex it pivots on, and the position of that vertex on the ground.
   */
  at(steps: number, x: number): { angle: number; corner: Corner; ground: number };
  /** How far the contact has moved after so many whole steps. */
  travel(steps: number): number;
}

/**
 * An edge counts as a bevel or worn corner, not as a side, if it is shorter than this fraction of the longest edge and
 * turns at both ends by less than this many radians. The narrow side of a plate, which turns by a right angle, is a
 * side; so is every side of a regular prism.
 */
export const FACET = { share: 0.3, turn: (80 * Math.PI) / 180 } as const;

/** @param hull counter-clockwise; it begins on the side that faces down most */
export function rollOf(hull: readonly Corner[]): Roll {
  const n = hull.length;
  const edge = (i: number): Corner => [hull[(i + 1) % n][0] - hull[i % n][0], hull[(i + 1) % n][1] - hull[i % n][1]];
  const lengthOf = (i: number) => Math.hypot(...edge(i));
  const directionOf = (i: number) => Math.atan2(edge(i)[1], edge(i)[0]);
  /** The turn from an edge to the next. */
  const turnOf = (i: number) => {
    const turn = directionOf(i + 1) - directionOf(i);
    return turn - 2 * Math.PI * Math.floor(turn / (2 * Math.PI));
  };
  const longest = Math.max(...hull.map((_, i) => lengthOf(i)));
  const isSide = (i: number) =>
    lengthOf(i) >= FACET.share * longest || turnOf(i + n - 1) > FACET.turn || turnOf(i) > FACET.turn;
  // The outward normal of a counter-clockwise edge (dx, dy) is (dy, −dx); facing down means dx > 0, dy = 0.
  let first = 0;
  let best = -Infinity;
  for (let i = 0; i < n; i++) {
    if (!isSide(i)) continue;
    const [dx, dy] = edge(i);
    const down = dx / Math.hypot(dx, dy);
    if (down > best + 1e-9) [best, first] = [down, i];
  }
  const of = <T>(make: (i: number) => T) => Array.from({ length: n }, (_, i) => make(first + i));
  const corners = of((i) => hull[(i + 1) % n]);
  const lengths = of(lengthOf);
  const directions = of(directionOf);
  const exterior = of(turnOf);
  const sums = [0];
  for (const l of lengths) sums.push(sums[sums.length - 1] + l);
  /** The edges that are sides, followed by the first again, one round later. */
  const sides = [...of(isSide).flatMap((is, i) => (is ? [i] : [])), n];
  const count = sides.length - 1;
  const start = hull[first][0];
  const travel = (steps: number) => {
    const rounds = Math.floor(steps / count);
    return rounds * sums[n] + sums[sides[steps - rounds * count]];
  };
  return {
    sides: count,
    travel,
    at(steps, x) {
      const k = ((steps % count) + count) % count;
      // Over all vertices between one side and the next, in proportion to their angles.
      let i = sides[k];
      let turn = 0;
      for (let j = i; j < sides[k + 1]; j++) turn += exterior[j];
      turn *= x;
      while (i < sides[k + 1] - 1 && turn >= exterior[i]) turn -= exterior[i++];
      return {
        angle: -(directions[i] + turn),
        corner: corners[i],
        ground: start + travel(steps) + (sums[i] - sums[sides[k]]) + lengths[i],
      };
    },
  };
}

const MOST_SIDES = 48;

/**
 * A body's points seen from the side, as a rolling outline.
 *
 * @param ahead how far ahead the point at an offset lies
 * @throws StepProblem if the outline has no sides to roll over
 */
export function rollAlong(points: Float32Array, ahead: (points: Float32Array, i: number) => number): Roll {
  const corners: Corner[] = [];
  let reach = 0;
  for (let i = 0; i < points.length; i += 3) {
    const c: Corner = [ahead(points, i), points[i + 1]];
    reach = Math.max(reach, Math.abs(c[0]), Math.abs(c[1]));
    corners.push(c);
  }
  const hull = convexHull(corners, 1e-4 * reach);
  if (hull.length < 3)
    throw new StepProblem(
      'Seen from the side this form is a line; turn it, or give it thickness, so that it can roll.',
    );
  if (hull.length > MOST_SIDES)
    throw new StepProblem(
      `Seen from the side this form has ${hull.length} sides, so it has no edges to roll over. Use a box or a ` +
        'prism, put Tumble before Subdivide and Smooth, or use Spin.',
    );
  return rollOf(hull);
}
