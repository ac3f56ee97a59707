import svgpath from 'svgpath';

/** A line of a drawing: points of two numbers each, one after the other. */
export interface PlaneLine {
  readonly points: number[];
  readonly closed: boolean;
}

/** A drawing that cannot be read, with the reason. */
export class PathProblem extends Error {
  override readonly name = 'PathProblem';
}

/**
 * The lines of a path in the syntax of SVG 1.1 (section 8.3), bends cut into straight pieces.
 *
 * @param tolerance how far a piece may stay off the bend, in the units of the path; > 0
 * @throws PathProblem naming where the path cannot be read
 */
export function pathLines(d: string, tolerance: number): PlaneLine[] {
  const path = svgpath(d);
  const error = 'err' in path ? String(path.err) : '';
  if (error) throw new PathProblem(`The path cannot be read: ${error.replace(/^SvgPath: /, '')}.`);
  const lines: { points: number[]; closed: boolean }[] = [];
  let line: { points: number[]; closed: boolean } | null = null;
  const to = (x: number, y: number) => {
    const p = line!.points;
    if (Math.abs(p[p.length - 2] - x) > 1e-9 || Math.abs(p[p.length - 1] - y) > 1e-9) p.push(x, y);
  };
  let [startX, startY] = [0, 0];
  path
    .abs()
    .unarc()
    .unshort()
    .iterate((segment, _i, x, y) => {
      const command = segment[0];
      const n = segment.slice(1).map(Number);
      if (command === 'M') {
        lines.push((line = { points: [n[0], n[1]], closed: false }));
        [startX, startY] = [n[0], n[1]];
        return;
      }
      // After a Z without an M, the next line begins where the last one did.
      if (line === null || line.closed) lines.push((line = { points: [startX, startY], closed: false }));
      switch (command) {
        case 'L':
          return to(n[0], n[1]);
        case 'H':
          return to(n[0], y);
        case 'V':
          return to(x, n[0]);
        case 'Q': {
          const [cx, cy, ex, ey] = n;
          // The same quadratic curve as a cubic, from ⅓ and ⅔ of the way to the control point.
          return cubic(
            [
              x,
              y,
              x + (2 / 3) * (cx - x),
              y + (2 / 3) * (cy - y),
              ex + (2 / 3) * (cx - ex),
              ey + (2 / 3) * (cy - ey),
              ex,
              ey,
            ],
            tolerance,
            to,
          );
        }
        case 'C':
          return cubic([x, y, ...n], tolerance, to);
        case 'Z':
          line.closed = true;
          return;
        // Nothing else is left by svgpath: see above.
        default:
          throw new RangeError(`The path has the command ${command}, which was to be replaced.`);
      }
    });
  for (const l of lines) {
    const p = l.points;
    // A line that returns to its start is closed, whether it says so or not.
    if (p.length > 4 && Math.abs(p[0] - p[p.length - 2]) < 1e-6 && Math.abs(p[1] - p[p.length - 1]) < 1e-6) {
      p.length -= 2;
      l.closed = true;
    }
  }
  return lines.filter((l) => l.points.length > 2);
}

/**
 * A cubic Bézier curve in even parameter steps, as many as the tolerance needs: the largest second difference bounds
 * the deviation from a chord (Wang's formula).
 */
function cubic(p: readonly number[], tolerance: number, to: (x: number, y: number) => void): void {
  const bend = Math.max(
    Math.hypot(p[0] - 2 * p[2] + p[4], p[1] - 2 * p[3] + p[5]),
    Math.hypot(p[2] - 2 * p[4] + p[6], p[3] - 2 * p[5] + p[7]),
  );
  const steps = Math.max(1, Math.min(500, Math.ceil(Math.sqrt((6 * bend) / (8 * tolerance)))));
  for (let i = 1; i <= steps; i++) {
    const t = i / steps;
    const u = 1 - t;
    const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    to(a * p[0] + b * p[2] + c * p[4] + d * p[6], a * p[1] + b * p[3] + c * p[5] + d * p[7]);
  }
}
