import { kernels } from '../kernels/kernels';
import { netOf } from './curves/net';
import type { Mesh } from './mesh';
import { topologyOf } from './topology';

/** Below this many points, plain TypeScript finishes before buffers would be copied. */
const LEAST = 256;

/**
 * Laplacian smoothing with equal weights: p ← p + λ (mean of neighbours − p), all vertices at once
 * (Jacobi), `iterations` times (e.g. Botsch et al., Polygon Mesh Processing, ch. 4).
 *
 * @param strength λ in 0…1
 * @param holdBorders leave vertices on a border where they are
 */
export function laplacianSmooth(mesh: Mesh, iterations: number, strength: number, holdBorders: boolean): Mesh {
  const { neighbourStart, neighbours, border } = mesh.connectivity.curves
    ? netOf(mesh.connectivity)
    : topologyOf(mesh.connectivity);
  const n = mesh.connectivity.vertexCount;
  let from = mesh.positions;
  const k = n >= LEAST && iterations > 0 ? kernels() : null;
  if (k) {
    k.begin();
    const [start, around, held] = [
      k.keep(neighbourStart),
      k.keep(neighbours),
      holdBorders ? k.keep(border) : k.room(n, true),
    ];
    let [a, b] = [k.put(from), k.room(12 * n)];
    for (let it = 0; it < iterations; it++) {
      k.run.smooth(start, around, held, n, strength, a, b);
      [a, b] = [b, a];
    }
    return { connectivity: mesh.connectivity, positions: k.take(a, 3 * n) };
  }
  // Two buffers alternate; the input is never written.
  const buffers = [new Float32Array(from.length), new Float32Array(iterations > 1 ? from.length : 0)];
  for (let it = 0; it < iterations; it++) {
    const to = buffers[it & 1];
    for (let v = 0; v < n; v++) {
      const a = neighbourStart[v];
      const b = neighbourStart[v + 1];
      const i = v * 3;
      if (a === b || (holdBorders && border[v])) {
        to[i] = from[i];
        to[i + 1] = from[i + 1];
        to[i + 2] = from[i + 2];
        continue;
      }
      let x = 0;
      let y = 0;
      let z = 0;
      for (let k = a; k < b; k++) {
        const j = neighbours[k] * 3;
        x += from[j];
        y += from[j + 1];
        z += from[j + 2];
      }
      const w = strength / (b - a);
      const keep = 1 - strength;
      to[i] = keep * from[i] + w * x;
      to[i + 1] = keep * from[i + 1] + w * y;
      to[i + 2] = keep * from[i + 2] + w * z;
    }
    from = to;
  }
  return { connectivity: mesh.connectivity, positions: from };
}

/**
 * Smoothing that keeps the volume: each pass shrinks by λ and swells by μ, where 1/λ + 1/μ is the
 * pass band (G. Taubin, “A signal processing approach to fair surface design”, SIGGRAPH 1995).
 *
 * @param strength λ in 0…1; the pass band is 0.1, as Taubin uses it
 */
export function taubinSmooth(mesh: Mesh, iterations: number, strength: number, holdBorders: boolean): Mesh {
  if (strength === 0) return mesh;
  const swell = 1 / (0.1 - 1 / strength);
  let out = mesh;
  for (let i = 0; i < iterations; i++)
    out = laplacianSmooth(laplacianSmooth(out, 1, strength, holdBorders), 1, swell, holdBorders);
  return out;
}
