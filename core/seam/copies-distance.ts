import { copyChannels } from '../shape/copy-channels';
import { copyCount, flattened, transformInto } from '../copies/copies';
import type { Mesh } from '../shape/mesh';
import { turnless } from './bodies';

/** Most points that represent copies in a comparison. */
const MOST_POINTS = 300_000;

function equal(a: ArrayLike<number> | undefined, b: ArrayLike<number> | undefined): boolean {
  if (!a || !b) return a === b;
  if (a.length !== b.length) return false;
  // NaN stands for the finish's own value, and equals itself.
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i] && !(a[i] !== a[i] && b[i] !== b[i])) return false;
  return true;
}

/** Whether two lists of copies are equal in every bit: positions, shapes, channels and finishes. */
export function sameCopies(a: Mesh, b: Mesh): boolean {
  const [p, q] = [a.copies, b.copies];
  if (
    !p ||
    !q ||
    copyCount(p) !== copyCount(q) ||
    !equal(p.matrices, q.matrices) ||
    !equal(p.materialIndices, q.materialIndices) ||
    p.materialRibbons?.join() !== q.materialRibbons?.join() ||
    copyChannels.some((c) => !equal(p.channels?.[c], q.channels?.[c]))
  )
    return false;
  const known = new Map<number, boolean>();
  for (let i = 0; i < p.source.length; i++) {
    const key = p.source[i] * 65_536 + q.source[i];
    let same = known.get(key);
    if (same === undefined) {
      const [m, n] = [p.sources[p.source[i]], q.sources[q.source[i]]];
      known.set(
        key,
        (same = m === n || (equal(m.positions, n.positions) && equal(m.connectivity.corners, n.connectivity.corners))),
      );
    }
    if (!same) return false;
  }
  return true;
}

/**
 * Points of a shape as displayed, 3 numbers each: all of them, or a sample of many copies. A copy's colour displaces
 * its points slightly, so that copies which changed places are the same set only if their colours moved along.
 *
 * @param shade metres by which a full colour displaces a point
 * @param turnlessBelow size of the whole shape in metres, to compare round bodies by what is visible of them
 * (bodies.ts)
 */
export function pointsShown(mesh: Mesh, shade: number, turnlessBelow?: number): Float32Array {
  const { copies } = mesh;
  if (!copies) return mesh.positions;
  const { source, sources, matrices, channels, materialIndices } = copies;
  const { baseColor, roughness, metalness } = channels ?? {};
  const n = copyCount(copies);
  const total = source.reduce((sum, s) => sum + sources[s].positions.length / 3, 0);
  const each = total <= MOST_POINTS ? Infinity : Math.max(2, Math.floor(MOST_POINTS / Math.max(1, n)));
  const seen = turnlessBelow === undefined ? null : turnless(mesh, turnlessBelow);
  if (each === Infinity && !channels && !materialIndices && !seen) return flattened(mesh).positions;
  const samples = sources.map((s) => sampled(s.positions, each));
  const parts = Array.from({ length: n }, (_, i) => seen?.(i) ?? null);
  const lengthOf = (i: number) => parts[i]?.length ?? samples[source[i]].length;
  const out = new Float32Array(parts.reduce((sum, _, i) => sum + lengthOf(i), 0));
  let at = 0;
  for (let i = 0; i < n; i++) {
    const part = parts[i];
    const length = lengthOf(i);
    if (part) out.set(part, at);
    else transformInto(samples[source[i]], matrices, 16 * i, out, at);
    const finish = own(roughness, i) + 0.7 * own(metalness, i) + 0.3 * (materialIndices ? materialIndices[i] : 0);
    for (let k = 0; k < length; k++) out[at + k] += shade * (own(baseColor, 3 * i + (k % 3)) + finish);
    at += length;
  }
  return out;
}

function own(values: Float32Array | undefined, i: number): number {
  const x = values ? values[i] : 0;
  return x === x ? x : -0.5;
}

function sampled(p: Float32Array, most: number): Float32Array {
  const n = p.length / 3;
  if (n <= most) return p;
  const out = new Float32Array(3 * most);
  for (let i = 0; i < most; i++) {
    const v = Math.floor((i * n) / most);
    out.set(p.subarray(3 * v, 3 * v + 3), 3 * i);
  }
  return out;
}
