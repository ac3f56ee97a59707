import type { Connectivity, Curves } from './mesh';

/** Places on the surface for corners that were corner number `from[i]` before. */
export function cornerUv(uv: Float32Array, from: ArrayLike<number>): Float32Array {
  const out = new Float32Array(2 * from.length);
  for (let k = 0; k < from.length; k++) {
    out[2 * k] = uv[2 * from[k]];
    out[2 * k + 1] = uv[2 * from[k] + 1];
  }
  return out;
}

/**
 * A connectivity made of the faces of another one, with what those faces and corners carry:
 * shading, finish and place on the surface.
 *
 * @param faceFrom the face that each new face was
 * @param cornerFrom the corner that each new corner was; left out where there is no such thing
 */
export function carried(
  old: Connectivity,
  made: Connectivity,
  faceFrom: ArrayLike<number>,
  cornerFrom?: ArrayLike<number>,
): Connectivity {
  const { shadingGroups, slots, uv } = old;
  return {
    ...made,
    ...(shadingGroups ? { shadingGroups: Uint16Array.from(faceFrom, (f) => shadingGroups[f]) } : {}),
    ...(slots ? { slots: Uint8Array.from(faceFrom, (f) => slots[f]) } : {}),
    ...(uv && cornerFrom ? { uv: cornerUv(uv, cornerFrom) } : {}),
  };
}

/** Curves of several copies, each with vertices of its own. */
export function repeatedCurves(c: Curves, times: number, vertices: number): Curves {
  const [curves, count] = [c.closed.length, c.points.length];
  const start = new Uint32Array(curves * times + 1);
  const points = new Uint32Array(count * times);
  const closed = new Uint8Array(curves * times);
  for (let b = 0; b < times; b++) {
    for (let i = 0; i < curves; i++) start[b * curves + i] = b * count + c.start[i];
    for (let i = 0; i < count; i++) points[b * count + i] = c.points[i] + b * vertices;
    closed.set(c.closed, b * curves);
  }
  start[curves * times] = count * times;
  return { start, points, closed };
}

/**
 * Corners of a grid that comes round both ways, quads in the order in which torus and tube make them. Like all
 * places on surfaces of our own they run so that a picture there is read from left to right.
 */
export function gridUv(m: number, n: number): Float32Array {
  const uv = new Float32Array(8 * m * n);
  let k = 0;
  for (let i = 0; i < m; i++)
    for (let j = 0; j < n; j++) {
      const [u, on, v, up] = [1 - i / m, 1 - (i + 1) / m, j / n, (j + 1) / n];
      uv.set([u, v, u, up, on, up, on, v], k);
      k += 8;
    }
  return uv;
}

/**
 * Longitude and latitude of corners seen from the middle, 0…1 each; longitude runs eastwards and goes on past 0 within
 * a face rather than jumping back. Poles have the longitude of their face's middle.
 *
 * @param directions 3 numbers a vertex, of any length
 */
export function ballUv(c: Connectivity, directions: ArrayLike<number>): Float32Array {
  const uv = new Float32Array(2 * c.corners.length);
  for (let f = 0; f + 1 < c.faceStart.length; f++) {
    const [from, to] = [c.faceStart[f], c.faceStart[f + 1]];
    let [mx, mz] = [0, 0];
    for (let k = from; k < to; k++) {
      mx += directions[3 * c.corners[k]];
      mz += directions[3 * c.corners[k] + 2];
    }
    const middle = turnsOf(mz, mx);
    for (let k = from; k < to; k++) {
      const i = 3 * c.corners[k];
      const [x, y, z] = [directions[i], directions[i + 1], directions[i + 2]];
      const flat = Math.hypot(x, z);
      const off = flat > 1e-9 ? turnsOf(z, x) - middle : 0;
      uv[2 * k] = 1 - (middle + off - Math.round(off));
      uv[2 * k + 1] = 0.5 + Math.atan2(y, flat) / Math.PI;
    }
  }
  return uv;
}

function turnsOf(y: number, x: number): number {
  const a = Math.atan2(y, x) / (2 * Math.PI);
  return a < 0 ? a + 1 : a;
}

/** The place on the surface of each vertex, two numbers each, from the first corner that has it; null without any. */
export function vertexUv(c: Connectivity): Float32Array | null {
  if (!c.uv) return null;
  const out = new Float32Array(2 * c.vertexCount);
  for (let k = c.corners.length - 1; k >= 0; k--) {
    out[2 * c.corners[k]] = c.uv[2 * k];
    out[2 * c.corners[k] + 1] = c.uv[2 * k + 1];
  }
  return out;
}
