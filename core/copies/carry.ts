import type { Connectivity, Copies, Mesh } from '../shape/mesh';
import { StepProblem } from '../declare/step-problem';
import { copyCount, reachOf, withCopies } from './copies';

/** How far a step after a repeat affects a copy: its position only, its rotation too, or also its size. */
export type Carries = 'shift' | 'turn' | 'size';

const known = new Map<number, Connectivity>();

/**
 * A small triangle for each copy, with corners at the copy's position, along its z and along its x; its normal is the
 * copy's y.
 */
function probeConnectivity(count: number): Connectivity {
  let c = known.get(count);
  if (!c) {
    if (known.size > 8) known.clear();
    const corners = Uint32Array.from({ length: 3 * count }, (_, i) => i);
    const faceStart = Uint32Array.from({ length: count + 1 }, (_, i) => 3 * i);
    known.set(count, (c = { vertexCount: 3 * count, faceStart, corners }));
  }
  return c;
}

/**
 * Applies a step that moves points to copies as rigid bodies: position, rotation and size follow a small triangle that
 * stands for each.
 */
export function carry(mesh: Mesh, move: (probe: Mesh) => Mesh, carries: Carries): Mesh {
  const copies = mesh.copies!;
  const n = copyCount(copies);
  const m = copies.matrices;
  const reaches = copies.sources.map((s) => Math.max(1e-3, reachOf(s) / 2));
  const probe = new Float32Array(9 * n);
  const lengths = new Float32Array(n);
  for (let i = 0, o = 0, q = 0; i < n; i++, o += 16, q += 9) {
    const sx = Math.hypot(m[o], m[o + 1], m[o + 2]);
    const sz = Math.hypot(m[o + 8], m[o + 9], m[o + 10]);
    // A copy of size 0 has no axes; any will do, since it is invisible.
    const r = (lengths[i] = reaches[copies.source[i]] * (sx || 1));
    for (let k = 0; k < 3; k++) {
      const c = m[o + 12 + k];
      probe[q + k] = c;
      probe[q + 3 + k] = c + r * (sz > 0 ? m[o + 8 + k] / sz : Number(k === 2));
      probe[q + 6 + k] = c + r * (sx > 0 ? m[o + k] / sx : Number(k === 0));
    }
  }
  const p = move({ connectivity: probeConnectivity(n), positions: probe }).positions;
  if (p.length !== probe.length)
    throw new StepProblem(
      'This step makes new points, so that it cannot move copies whole; let it work on each copy or on all as one form.',
    );
  const out = m.slice();
  for (let i = 0, o = 0, q = 0; i < n; i++, o += 16, q += 9) {
    out[o + 12] = p[q];
    out[o + 13] = p[q + 1];
    out[o + 14] = p[q + 2];
    if (carries === 'shift') continue;
    const [zx, zy, zz] = [p[q + 3] - p[q], p[q + 4] - p[q + 1], p[q + 5] - p[q + 2]];
    const [xx, xy, xz] = [p[q + 6] - p[q], p[q + 7] - p[q + 1], p[q + 8] - p[q + 2]];
    const lx = Math.hypot(xx, xy, xz);
    const [yx, yy, yz] = [zy * xz - zz * xy, zz * xx - zx * xz, zx * xy - zy * xx];
    const ly = Math.hypot(yx, yy, yz);
    // A degenerate triangle says nothing about rotation.
    if (lx < 1e-12 || ly < 1e-20) {
      if (carries === 'size') for (let k = 0; k < 11; k++) if (k % 4 < 3) out[o + k] = 0;
      continue;
    }
    const scale = carries === 'size' ? Math.sqrt(ly) / lengths[i] : 1;
    const X = [xx / lx, xy / lx, xz / lx];
    const Y = [yx / ly, yy / ly, yz / ly];
    const Z = [X[1] * Y[2] - X[2] * Y[1], X[2] * Y[0] - X[0] * Y[2], X[0] * Y[1] - X[1] * Y[0]];
    const s = [
      Math.hypot(m[o], m[o + 1], m[o + 2]),
      Math.hypot(m[o + 4], m[o + 5], m[o + 6]),
      Math.hypot(m[o + 8], m[o + 9], m[o + 10]),
    ];
    for (let k = 0; k < 3; k++) {
      out[o + k] = scale * s[0] * X[k];
      out[o + 4 + k] = scale * s[1] * Y[k];
      out[o + 8 + k] = scale * s[2] * Z[k];
    }
  }
  return withCopies({ ...copies, matrices: out });
}

/** The same copies of other sources. */
export function withSources(copies: Copies, sources: readonly Mesh[]): Mesh {
  return withCopies({ ...copies, sources });
}
