import earcut from 'earcut';
import { ConnectivityBuilder } from '../builder';
import { cross } from '../../maths/vec3';
import { squareTo } from '../closed-path';
import { FINISH, type Connectivity, type Mesh } from '../mesh';
import { pointsOf, polylinesOf } from './curves';
import { doubleArea, isInside, mitres, sharpRuns, type Point2 } from './profile';

/** Closed outlines in their common plane, turned so that material lies to the left of their way. */
export interface Sheet {
  readonly contours: readonly { readonly points: readonly Point2[]; readonly heights: readonly number[] }[];
  /** Triangles over all points of the contours in order, counter-clockwise seen from the front. */
  readonly triangles: readonly number[];
  /** Whether each contour runs against the direction of its curve. */
  readonly reversed: readonly boolean[];
  readonly middle: readonly [number, number, number];
  /** Unit vectors of a point's two coordinates, and of the front. */
  readonly u: readonly [number, number, number];
  readonly v: readonly [number, number, number];
  readonly n: readonly [number, number, number];
}

/**
 * The sheet between the closed curves of a shape. A curve inside an odd number of others is a hole,
 * whatever way it was drawn. Null where they enclose nothing.
 */
export function capped(mesh: Mesh): Sheet | null {
  const lines = polylinesOf(mesh.connectivity)
    .filter((l) => l.closed && l.vertices.length > 2)
    .map((l) => pointsOf(mesh.positions, l));
  const area = [0, 0, 0];
  const middle: [number, number, number] = [0, 0, 0];
  let [count, largest] = [0, 0];
  for (const p of lines) {
    const own = [0, 0, 0];
    for (let i = 0; i < p.length; i += 3) {
      const j = (i + 3) % p.length;
      for (let k = 0; k < 3; k++) {
        middle[k] += p[i + k];
        own[k] += (p[i + ((k + 1) % 3)] - p[j + ((k + 1) % 3)]) * (p[i + ((k + 2) % 3)] + p[j + ((k + 2) % 3)]);
      }
      count++;
    }
    // The largest outline decides which side is the front.
    const size = Math.hypot(...own);
    if (size > largest) {
      largest = size;
      for (let k = 0; k < 3; k++) area[k] = own[k];
    }
  }
  if (largest < 1e-12) return null;
  for (let k = 0; k < 3; k++) middle[k] /= count;
  const n: [number, number, number] = [area[0] / largest, area[1] / largest, area[2] / largest];
  const u = squareTo(n, Math.abs(n[1]) < 0.9 ? cross([0, 1, 0], n) : [1, 0, 0]);
  const v = cross(n, u);
  const plane = lines.map((p) => {
    const points: Point2[] = [];
    const heights: number[] = [];
    for (let i = 0; i < p.length; i += 3) {
      const d = [p[i] - middle[0], p[i + 1] - middle[1], p[i + 2] - middle[2]];
      points.push([d[0] * u[0] + d[1] * u[1] + d[2] * u[2], d[0] * v[0] + d[1] * v[1] + d[2] * v[2]]);
      heights.push(d[0] * n[0] + d[1] * n[1] + d[2] * n[2]);
    }
    return { points, heights };
  });
  const depth = plane.map((c, i) => plane.filter((o, j) => j !== i && isInside(c.points[0], o.points)).length);
  const reversed = plane.map((c, i) => doubleArea(c.points) > 0 === (depth[i] % 2 === 1));
  const contours = plane.map((c, i) => {
    return reversed[i] ? { points: [...c.points].reverse(), heights: [...c.heights].reverse() } : c;
  });
  const starts: number[] = [];
  contours.reduce((sum, c) => (starts.push(sum), sum + c.points.length), 0);
  const triangles: number[] = [];
  contours.forEach((outer, i) => {
    if (depth[i] % 2 === 1) return;
    const holes = contours.flatMap((c, j) =>
      depth[j] === depth[i] + 1 && isInside(c.points[0], outer.points) ? [j] : [],
    );
    const members = [i, ...holes];
    const flat = members.flatMap((j) => contours[j].points.flat());
    const at = members.flatMap((j) => contours[j].points.map((_, k) => starts[j] + k));
    const holeStarts: number[] = [];
    members
      .slice(0, -1)
      .reduce((sum, j) => (holeStarts.push(sum + contours[j].points.length), sum + contours[j].points.length), 0);
    const cut = withAll(
      earcut(flat, holeStarts),
      members.map((j) => contours[j].points.length),
    );
    for (let t = 0; t < cut.length; t += 3) {
      const [a, b, c] = [cut[t], cut[t + 1], cut[t + 2]];
      const turn =
        (flat[2 * b] - flat[2 * a]) * (flat[2 * c + 1] - flat[2 * a + 1]) -
        (flat[2 * b + 1] - flat[2 * a + 1]) * (flat[2 * c] - flat[2 * a]);
      triangles.push(at[a], ...(turn >= 0 ? [at[b], at[c]] : [at[c], at[b]]));
    }
  });
  return { contours, triangles, reversed, middle, u, v, n };
}

/** Restores points on straight sides, which ear clipping omits: the triangle there becomes a fan. */
function withAll(cut: readonly number[], counts: readonly number[]): number[] {
  const out = [...cut];
  const used = new Set(cut);
  let first = 0;
  for (const n of counts) {
    for (let i = 0; i < n; i++) {
      const a = first + i;
      if (!used.has(a) || used.has(first + ((i + 1) % n))) continue;
      const between: number[] = [];
      let j = (i + 1) % n;
      while (!used.has(first + j) && between.length < n) {
        between.push(first + j);
        j = (j + 1) % n;
      }
      const c = first + j;
      for (let t = 0; t < out.length; t += 3) {
        const three = out.slice(t, t + 3);
        const k = three.findIndex(
          (x, q) => (x === a && three[(q + 1) % 3] === c) || (x === c && three[(q + 1) % 3] === a),
        );
        if (k < 0) continue;
        const apex = three[(k + 2) % 3];
        const way = three[k] === a ? [a, ...between, c] : [c, ...[...between].reverse(), a];
        out.splice(t, 3, ...way.slice(0, -1).flatMap((x, q) => [x, way[q + 1], apex]));
        break;
      }
    }
    first += n;
  }
  return out;
}

const known = new Map<string, Connectivity>();

/** A body over a sheet: rings of its outline from back to front, each inset by `inset` metres and at a height. */
export function extruded(
  sheet: Sheet,
  rows: readonly { readonly inset: number; readonly height: number }[],
  ends: boolean,
): Mesh {
  const { contours, middle, u, v, n } = sheet;
  const total = contours.reduce((sum, c) => sum + c.points.length, 0);
  const positions = new Float32Array(3 * total * rows.length);
  const out = contours.map((c) => mitres(c.points));
  let o = 0;
  for (const row of rows)
    contours.forEach((c, i) =>
      c.points.forEach(([x, y], j) => {
        const [a, b, h] = [x - row.inset * out[i][j][0], y - row.inset * out[i][j][1], c.heights[j] + row.height];
        for (let k = 0; k < 3; k++) positions[o++] = middle[k] + a * u[k] + b * v[k] + h * n[k];
      }),
    );
  const groups: number[][] = [];
  contours.reduce((next, c) => {
    const runs = sharpRuns(c.points, true, next);
    groups.push(runs);
    return Math.max(...runs) + 1;
  }, 2);
  // A moving outline usually keeps its triangles and corners, and then its connectivity.
  const key = `${rows.length}/${ends}/${contours.map((c) => c.points.length).join()}/${sheet.triangles.join()}/${groups.map((g) => g.join('')).join()}`;
  let connectivity = known.get(key);
  if (!connectivity) {
    if (known.size > 60) known.clear();
    known.set(key, (connectivity = build(sheet, rows.length, ends, total, groups)));
  }
  return { connectivity, positions };
}

function build(
  sheet: Sheet,
  rows: number,
  ends: boolean,
  total: number,
  groups: readonly (readonly number[])[],
): Connectivity {
  const faces = new ConnectivityBuilder();
  const { contours, triangles } = sheet;
  const flat = contours.flatMap((c) => c.points);
  const spread = Math.max(1e-9, ...flat.map(([x, y]) => Math.max(Math.abs(x), Math.abs(y))));
  const place = (i: number) => [0.5 + (0.5 * flat[i][0]) / spread, 0.5 + (0.5 * flat[i][1]) / spread];
  for (let r = 0; r + 1 < rows; r++) {
    let first = 0;
    contours.forEach((c, i) => {
      const count = c.points.length;
      for (let j = 0; j < count; j++) {
        const k = (j + 1) % count;
        const [u0, u1, v0, v1] = [j / count, (j + 1) / count, r / (rows - 1), (r + 1) / (rows - 1)];
        faces.face(
          [first + r * total + j, first + r * total + k, first + (r + 1) * total + k, first + (r + 1) * total + j],
          groups[i][j],
          FINISH.main,
          [u0, v0, u1, v0, u1, v1, u0, v1],
        );
      }
      first += count;
    });
  }
  for (let t = 0; ends && t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t], triangles[t + 1], triangles[t + 2]];
    faces.face([c, b, a], 0, FINISH.main, [...place(c), ...place(b), ...place(a)]);
    const top = (rows - 1) * total;
    faces.face([top + a, top + b, top + c], 1, FINISH.main, [...place(a), ...place(b), ...place(c)]);
  }
  return faces.finish(rows * total);
}
