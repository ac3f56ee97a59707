import type { Mesh } from './mesh';
import { topologyOf } from './topology';

/** Mean length in metres of the edges and curve segments at each point; 0 if there are none. */
export function edgeLengths({ connectivity, positions: p }: Mesh): Float32Array {
  const sum = new Float64Array(connectivity.vertexCount);
  const count = new Uint32Array(connectivity.vertexCount);
  const add = (a: number, b: number) => {
    const d = Math.hypot(p[3 * a] - p[3 * b], p[3 * a + 1] - p[3 * b + 1], p[3 * a + 2] - p[3 * b + 2]);
    for (const v of [a, b]) {
      sum[v] += d;
      count[v]++;
    }
  };
  const { edges } = topologyOf(connectivity);
  for (let e = 0; e < edges.length; e += 2) add(edges[e], edges[e + 1]);
  const { curves } = connectivity;
  if (curves)
    for (let c = 0; c < curves.closed.length; c++) {
      const [first, last] = [curves.start[c], curves.start[c + 1]];
      for (let i = first; i + 1 < last; i++) add(curves.points[i], curves.points[i + 1]);
      if (curves.closed[c] && last - first > 2) add(curves.points[last - 1], curves.points[first]);
    }
  return Float32Array.from(sum, (s, v) => (count[v] > 0 ? s / count[v] : 0));
}
