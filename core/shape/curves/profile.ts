import earcut from 'earcut';

export type Point2 = readonly [number, number];

/** Outlines that turn by more than this are shaded with an edge. */
const SHARP = (30 * Math.PI) / 180;

/** Which points of a plane outline are corners rather than part of a curve. */
export function sharpPoints(points: readonly Point2[], closed: boolean): boolean[] {
  const n = points.length;
  return points.map((p, i) => {
    if (!closed && (i === 0 || i === n - 1)) return false;
    const [a, b] = [points[(i + n - 1) % n], points[(i + 1) % n]];
    const [ux, uy, vx, vy] = [p[0] - a[0], p[1] - a[1], b[0] - p[0], b[1] - p[1]];
    return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) > SHARP;
  });
}

/** A shading group for each segment: it changes at corners only. */
export function sharpRuns(points: readonly Point2[], closed: boolean, from = 0): number[] {
  const sharp = sharpPoints(points, closed);
  const first = closed ? sharp.indexOf(true) : 0;
  const runs = new Array<number>(points.length).fill(from);
  if (first < 0) return runs;
  let run = from;
  for (let k = 0; k < points.length; k++) {
    const i = (first + k) % points.length;
    if (k > 0 && sharp[i]) run++;
    runs[i] = run;
  }
  return runs;
}

/** Twice the signed area; positive where the outline goes counter-clockwise. */
export function doubleArea(points: readonly Point2[]): number {
  let sum = 0;
  for (let i = 0; i < points.length; i++) {
    const [a, b] = [points[i], points[(i + 1) % points.length]];
    sum += a[0] * b[1] - a[1] * b[0];
  }
  return sum;
}

/** Whether a point lies inside an outline, by the parity of crossings. */
export function isInside(point: Point2, outline: readonly Point2[]): boolean {
  let inside = false;
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [a, b] = [outline[i], outline[j]];
    if (a[1] > point[1] !== b[1] > point[1] && point[0] < ((b[0] - a[0]) * (point[1] - a[1])) / (b[1] - a[1]) + a[0])
      inside = !inside;
  }
  return inside;
}

/** Longest mitre relative to the offset. */
const MITRE = 4;

/**
 * The vector at each point that offsets the outline outwards by one, mitred at corners. Counter-clockwise outlines
 * grow.
 */
export function mitres(points: readonly Point2[]): Point2[] {
  const n = points.length;
  const side = (i: number): Point2 => {
    const [a, b] = [points[i % n], points[(i + 1) % n]];
    const l = Math.hypot(b[0] - a[0], b[1] - a[1]);
    return l > 0 ? [(b[1] - a[1]) / l, (a[0] - b[0]) / l] : [0, 0];
  };
  return points.map((_, i) => {
    const [p, q] = [side(i + n - 1), side(i)];
    const [x, y] = [p[0] + q[0], p[1] + q[1]];
    // The bisector b has b·n = cos(half), and must have the length 1/cos(half): 2 (p + q) / |p + q|².
    const square = x * x + y * y;
    if (square < 1e-12) return q;
    const factor = Math.min(2 / square, MITRE / Math.sqrt(square));
    return [x * factor, y * factor];
  });
}

/** Faces that cap a plane outline, counter-clockwise: itself if convex, otherwise triangles. */
export function capFaces(points: readonly Point2[]): number[][] {
  const n = points.length;
  const bulges = points.every((p, i) => {
    const [a, b] = [points[(i + n - 1) % n], points[(i + 1) % n]];
    return (p[0] - a[0]) * (b[1] - p[1]) - (p[1] - a[1]) * (b[0] - p[0]) >= -1e-12;
  });
  if (bulges) return [points.map((_, i) => i)];
  const cut = earcut(points.flat());
  return Array.from({ length: cut.length / 3 }, (_, t) => {
    const three = [cut[3 * t], cut[3 * t + 1], cut[3 * t + 2]];
    return doubleArea(three.map((i) => points[i])) < 0 ? three.reverse() : three;
  });
}

/**
 * A curve in space flattened onto its two widest directions, counter-clockwise unless asked for as drawn.
 * @param points 3 numbers each
 */
export function flatProfile(points: ArrayLike<number>, asDrawn = false): Point2[] {
  const spread = [0, 1, 2].map((k) => {
    let [low, high] = [Infinity, -Infinity];
    for (let i = k; i < points.length; i += 3) [low, high] = [Math.min(low, points[i]), Math.max(high, points[i])];
    return high - low;
  });
  const thin = spread.indexOf(Math.min(...spread));
  // Seen from above, the front or the right.
  const [a, b, sign] = thin === 1 ? [0, 2, -1] : thin === 2 ? [0, 1, 1] : [2, 1, 1];
  const out: Point2[] = [];
  for (let i = 0; i < points.length; i += 3) out.push([points[i + a], sign * points[i + b]]);
  return !asDrawn && doubleArea(out) < 0 ? out.reverse() : out;
}
