import type { Mesh } from '../mesh';
import { netOf } from './net';

/**
 * Relaxation of a net in odd and even passes (Gauss–Seidel with two colours of points), so that a
 * point sees where its neighbours have just gone. Points go to the mean of their neighbours weighted
 * by the length of the edge, so that long edges pull harder and spread the points; or they go where their
 * edges have one length.
 *
 * @param length rest length as a share of the mean length of all edges; null for the weighted mean
 */
export function relaxed(
  mesh: Mesh,
  passes: number,
  strength: number,
  length: number | null,
  hold: boolean,
): Float32Array {
  const { edges, neighbourStart, neighbours, border } = netOf(mesh.connectivity);
  const p = mesh.positions.slice();
  const n = mesh.connectivity.vertexCount;
  let rest = 0;
  for (let e = 0; e < edges.length; e += 2)
    rest += Math.hypot(...[0, 1, 2].map((k) => p[3 * edges[e] + k] - p[3 * edges[e + 1] + k]));
  rest = (rest / Math.max(1, edges.length / 2)) * (length ?? 0);
  for (let pass = 0; pass < 2 * passes; pass++)
    for (let v = pass & 1; v < n; v += 2) {
      const [from, to] = [neighbourStart[v], neighbourStart[v + 1]];
      if (from === to || (hold && border[v])) continue;
      const i = 3 * v;
      let [x, y, z, sum] = [0, 0, 0, 0];
      for (let k = from; k < to; k++) {
        const j = 3 * neighbours[k];
        const [dx, dy, dz] = [p[j] - p[i], p[j + 1] - p[i + 1], p[j + 2] - p[i + 2]];
        const d = Math.sqrt(dx * dx + dy * dy + dz * dz);
        if (d < 1e-12) continue;
        // Half of an edge's excess or lack of length, by which each end moves.
        const w = length === null ? d : (0.5 * (d - rest)) / d;
        x += w * dx;
        y += w * dy;
        z += w * dz;
        sum += length === null ? w : 1;
      }
      if (sum === 0) continue;
      p[i] += (strength * x) / sum;
      p[i + 1] += (strength * y) / sum;
      p[i + 2] += (strength * z) / sum;
    }
  return p;
}
