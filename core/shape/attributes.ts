import type { Connectivity, Curves } from './mesh';

/** Texture coordinates of corners that had the index `from[i]` before. */
export function cornerUv(uv: Float32Array, from: ArrayLike<number>): Float32Array {
  const out = new Float32Array(2 * from.length);
  for (let k = 0; k < from.length; k++) {
    out[2 * k] = uv[2 * from[k]];
    out[2 * k + 1] = uv[2 * from[k] + 1];
  }
  return out;
}

/**
 * A connectivity made of the faces of another one, with their attributes: shading, material slot and texture
 * coordinates.
 *
 * @param faceFrom the original of each new face
 * @param cornerFrom the original of each new corner; absent if there is none
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

/** Curves of several copies, each with its own vertices. */
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
 * Texture coordinates of the corners of a grid periodic in both directions, quads in the order of torus and tube. As on
 * all our own surfaces, a picture reads from left to right.
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
 * Longitude and latitude of corners seen from the centre, 0…1 each; longitude runs eastwards and continues past 0
 * within a face instead of jumping. Poles take the longitude of their face's centre.
 *
 * @param directions 3 numbers per vertex, of any length
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

/** Texture coordinates of each vertex, two numbers each, from the first corner that uses it; null if there are none. */
export function vertexUv(c: Connectivity): Float32Array | null {
  if (!c.uv) return null;
  const out = new Float32Array(2 * c.vertexCount);
  for (let k = c.corners.length - 1; k >= 0; k--) {
    out[2 * c.corners[k]] = c.uv[2 * k];
    out[2 * c.corners[k] + 1] = c.uv[2 * k + 1];
  }
  return out;
}
