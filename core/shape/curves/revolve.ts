import { ConnectivityBuilder } from '../builder';
import { FINISH, type Connectivity, type Mesh } from '../mesh';
import { capped } from './extrude';
import { polylinesOf } from './curves';

const known = new WeakMap<Connectivity, Map<string, Connectivity>>();

/**
 * The curves of a shape turned round an axis (0 x, 1 y, 2 z) through the origin. Points on the axis
 * are made once; a part of the round gets the sheet between closed outlines at both its ends.
 *
 * @param angle radians, up to a whole turn
 */
export function revolved(mesh: Mesh, axis: number, angle: number, sides: number, rise: number): Mesh {
  const c = mesh.connectivity;
  const p = mesh.positions;
  const [u, w] = [(axis + 1) % 3, (axis + 2) % 3];
  const whole = angle >= 2 * Math.PI - 1e-9 && rise === 0;
  const rings = whole ? sides : sides + 1;
  const lines = polylinesOf(c);
  const order = lines.flatMap((l) => [...l.vertices]);
  const onAxis = rise === 0 ? order.map((v) => Math.hypot(p[3 * v + u], p[3 * v + w]) < 1e-7) : order.map(() => false);
  const sheet = whole ? null : capped(mesh);
  const firsts: number[] = [];
  onAxis.reduce((sum, on) => (firsts.push(sum), sum + (on ? 1 : rings)), 0);
  const total = onAxis.reduce((sum, on) => sum + (on ? 1 : rings), 0);
  const positions = new Float32Array(3 * total);
  order.forEach((v, i) => {
    for (let k = 0; k < (onAxis[i] ? 1 : rings); k++) {
      const a = (angle * k) / sides;
      const [x, y] = [p[3 * v + u], p[3 * v + w]];
      const o = 3 * (firsts[i] + k);
      positions[o + axis] = p[3 * v + axis] + (rise * k) / sides;
      positions[o + u] = Math.cos(a) * x - Math.sin(a) * y;
      positions[o + w] = Math.sin(a) * x + Math.cos(a) * y;
    }
  });
  // Which side is out: correct for a closed outline that runs counter-clockwise about the direction of rotation.
  const flip = turnedInwards(
    lines.map((l) => [...l.vertices]),
    lines.map((l) => l.closed),
    p,
    axis,
  );
  let own = known.get(c);
  if (!own) known.set(c, (own = new Map()));
  const key = `${axis}/${sides}/${whole}/${flip}/${onAxis.map(Number).join('')}/${sheet?.triangles.join() ?? ''}`;
  let connectivity = own.get(key);
  if (!connectivity) {
    const faces = new ConnectivityBuilder();
    const at = (i: number, k: number) => (onAxis[i] ? firsts[i] : firsts[i] + (whole ? k % rings : k));
    let first = 0;
    for (const line of lines) {
      const n = line.vertices.length;
      for (let j = 0; j < (line.closed ? n : n - 1); j++)
        for (let k = 0; k < sides; k++) {
          const [a, b] = [first + j, first + ((j + 1) % n)];
          if (onAxis[a] && onAxis[b]) continue;
          const corners = [at(a, k), at(a, k + 1), at(b, k + 1), at(b, k)];
          const uv = [
            [k / sides, j / n],
            [(k + 1) / sides, j / n],
            [(k + 1) / sides, (j + 1) / n],
            [k / sides, (j + 1) / n],
          ];
          const kept = corners.map((_, i) => i).filter((i) => corners[i] !== corners[(i + 3) % 4]);
          if (flip) kept.reverse();
          faces.face(
            kept.map((i) => corners[i]),
            0,
            FINISH.main,
            kept.flatMap((i) => uv[i]),
          );
        }
      first += n;
    }
    if (sheet)
      addEnds(
        faces,
        lines.map((l) => ({ closed: l.closed, count: l.vertices.length })),
        sheet,
        at,
        sides,
        flip,
      );
    connectivity = faces.finish(total);
    if (own.size > 60) own.clear();
    own.set(key, connectivity);
  }
  return { connectivity, positions };
}

/** Whether faces would look inwards: the sign of the body's volume, from the moments of its curves. */
function turnedInwards(lines: readonly number[][], closed: readonly boolean[], p: Float32Array, axis: number): boolean {
  const [u, w] = [(axis + 1) % 3, (axis + 2) % 3];
  let sum = 0;
  lines.forEach((line, i) => {
    for (let j = 0; j < (closed[i] ? line.length : line.length - 1); j++) {
      const [a, b] = [3 * line[j], 3 * line[(j + 1) % line.length]];
      const [ra, rb] = [Math.hypot(p[a + u], p[a + w]), Math.hypot(p[b + u], p[b + w])];
      // ∮ r² dz over the profile: positive if it goes up on the outside.
      sum += ((ra * ra + ra * rb + rb * rb) / 3) * (p[b + axis] - p[a + axis]);
    }
  });
  return sum < 0;
}

function addEnds(
  faces: ConnectivityBuilder,
  lines: readonly { closed: boolean; count: number }[],
  sheet: NonNullable<ReturnType<typeof capped>>,
  at: (i: number, k: number) => number,
  sides: number,
  flip: boolean,
): void {
  // The sheet may have reversed a contour; its points are then counted from the end.
  const map: number[] = [];
  let first = 0;
  let contour = 0;
  for (const { closed, count } of lines) {
    if (closed && count > 2) {
      const reversed = sheet.reversed[contour++];
      for (let k = 0; k < count; k++) map.push(first + (reversed ? count - 1 - k : k));
    }
    first += count;
  }
  for (let t = 0; t < sheet.triangles.length; t += 3) {
    const three = [0, 1, 2].map((k) => map[sheet.triangles[t + k]]);
    // Counter-clockwise seen from the front of the sheet; which end that is depends on its direction.
    const start = three.map((i) => at(i, 0));
    const end = three.map((i) => at(i, sides));
    const front = sheet.reversed[0] !== flip;
    faces.face(front ? start : start.reverse(), 1, FINISH.main, [0, 0, 0, 1, 1, 1]);
    faces.face(front ? end.reverse() : end, 2, FINISH.main, [0, 0, 0, 1, 1, 1]);
  }
}
