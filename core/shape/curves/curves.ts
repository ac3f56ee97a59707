import type { Connectivity, Curves, Mesh } from '../mesh';

/** A polyline: vertices in order, and whether it is closed. */
export interface Polyline {
  readonly vertices: Uint32Array;
  readonly closed: boolean;
}

/** The curves of a shape, one by one. */
export function polylinesOf(c: Connectivity): Polyline[] {
  const { curves } = c;
  if (!curves) return [];
  return Array.from(curves.closed, (closed, i) => ({
    vertices: curves.points.subarray(curves.start[i], curves.start[i + 1]),
    closed: closed === 1,
  }));
}

export function curvesFrom(
  lines: readonly { readonly vertices: ArrayLike<number>; readonly closed: boolean }[],
): Curves {
  const start = new Uint32Array(lines.length + 1);
  lines.forEach((l, i) => (start[i + 1] = start[i] + l.vertices.length));
  const points = new Uint32Array(start[lines.length]);
  lines.forEach((l, i) => points.set(Array.from(l.vertices), start[i]));
  return { start, points, closed: Uint8Array.from(lines, (l) => Number(l.closed)) };
}

/** A shape of curves only, from points of 3 numbers each. */
export function curvesMesh(lines: readonly { readonly points: ArrayLike<number>; readonly closed: boolean }[]): Mesh {
  let first = 0;
  const curves = curvesFrom(
    lines.map(({ points, closed }) => {
      const vertices = Uint32Array.from({ length: points.length / 3 }, (_, i) => first + i);
      first += vertices.length;
      return { vertices, closed };
    }),
  );
  const positions = new Float32Array(3 * first);
  let o = 0;
  for (const { points } of lines) {
    positions.set(Array.from(points), o);
    o += points.length;
  }
  return {
    connectivity: shared({ vertexCount: first, faceStart: new Uint32Array(1), corners: new Uint32Array(0), curves }),
    positions,
  };
}

const known = new Map<string, Connectivity>();

/** The connectivity seen before with the same curves, so that a moving curve keeps its own. */
function shared(c: Connectivity): Connectivity {
  const { start, closed } = c.curves!;
  const key = `${start.join()}/${closed.join()}`;
  const hit = known.get(key);
  if (hit) return hit;
  if (known.size > 60) known.clear();
  known.set(key, c);
  return c;
}

/** Positions of the points of a polyline, 3 numbers each. */
export function pointsOf(p: Float32Array, line: Polyline): Float64Array {
  const out = new Float64Array(3 * line.vertices.length);
  for (let i = 0; i < line.vertices.length; i++)
    for (let k = 0; k < 3; k++) out[3 * i + k] = p[3 * line.vertices[i] + k];
  return out;
}
