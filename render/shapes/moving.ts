import type { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { pictureAt } from '@maypole/core/evaluate/picture-at';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import type { Surface } from '@maypole/core/finish/surface';
import { linkPiece } from '@maypole/core/piece/link';
import type { Piece, RibbonDoc } from '@maypole/core/piece/piece';
import { drawTopologyOf } from '@maypole/core/shape/drawable';
import type { Connectivity, Mesh } from '@maypole/core/shape/mesh';

/** Shapes cannot be written as asked; the message is a sentence. */
export class ShapeTrouble extends Error {
  override readonly name = 'ShapeTrouble';
}

/** A ribbon in motion. */
export interface Track {
  readonly id: string;
  readonly name: string;
  /** Surfaces by material slot at the first frame. */
  readonly surface: (slot: number) => Surface;
  /** Material slots that occur at any frame, other than the main one. */
  readonly slots: readonly number[];
  /** One shape of constant topology; the same copies of the same shapes; or shapes of changing topology. */
  readonly kind: 'shape' | 'copies' | 'changing';
  /** The shape at a frame. */
  readonly at: (frame: number) => Mesh;
}

/** Whether two connectivities draw the same triangles and lines of the same vertices. */
export function sameTopology(a: Connectivity, b: Connectivity): boolean {
  if (a === b) return true;
  if (a.vertexCount !== b.vertexCount) return false;
  const same = (p?: ArrayLike<number>, q?: ArrayLike<number>) => {
    if (p === q) return true;
    if (!p || !q || p.length !== q.length) return false;
    for (let i = 0; i < p.length; i++) if (p[i] !== q[i]) return false;
    return true;
  };
  return (
    same(a.faceStart, b.faceStart) &&
    same(a.corners, b.corners) &&
    same(a.shadingGroups, b.shadingGroups) &&
    same(a.slots, b.slots) &&
    same(a.curves?.points, b.curves?.points) &&
    same(a.curves?.start, b.curves?.start) &&
    same(a.curves?.closed, b.curves?.closed)
  );
}

function sameCopies(a: Mesh, b: Mesh): boolean {
  const [c, d] = [a.copies, b.copies];
  if (!c || !d || c.source.length !== d.source.length || c.sources.length !== d.sources.length) return false;
  for (let i = 0; i < c.source.length; i++) if (c.source[i] !== d.source[i]) return false;
  return c.sources.every((s, i) => sameTopology(s.connectivity, d.sources[i].connectivity));
}

/** The visible ribbons of a piece, and how each moves over some frames. */
export async function tracksOf(
  piece: Piece,
  frames: readonly number[],
  cache: MeshCache,
  signal?: AbortSignal,
): Promise<Track[]> {
  const { ribbons } = linkPiece(piece);
  const shapeOf = (r: RibbonDoc, at: number) => evaluateRibbon(r, piece.loop, at, 'final', cache).mesh;
  const first = pictureAt(piece, frames[0], (r) => shapeOf(r, frames[0]));
  const out: Track[] = [];
  for (const { id, surfaces } of first.ribbons) {
    const ribbon = ribbons.find((r) => r.id === id)!;
    const at = (frame: number) => shapeOf(ribbon, frame);
    const start = at(frames[0]);
    let kind: Track['kind'] = start.copies ? 'copies' : 'shape';
    const slots = new Set<number>();
    for (const frame of frames) {
      // Yields between frames.
      await new Promise((resolve) => setImmediate(resolve));
      signal?.throwIfAborted();
      const mesh = at(frame);
      for (const { mesh: one } of placedIn(mesh)) for (const slot of one.connectivity.slots ?? []) slots.add(slot);
      if (kind === 'changing') continue;
      const same = start.copies
        ? sameCopies(start, mesh)
        : !mesh.copies && sameTopology(start.connectivity, mesh.connectivity);
      if (!same) kind = 'changing';
    }
    const name = piece.ribbons.find((r) => r.id === id)!.name;
    slots.delete(0);
    out.push({
      id,
      name,
      slots: [...slots].sort((a, b) => a - b),
      surface: (slot) => surfaces[slot] ?? surfaces[0],
      kind,
      at,
    });
  }
  return out;
}

/** A shape and its pose: itself, or a copy by its column-major matrix of 16 numbers. */
export interface Placed {
  readonly mesh: Mesh;
  readonly matrix: Float32Array | null;
}

export function placedIn(mesh: Mesh): Placed[] {
  const { copies: c } = mesh;
  if (!c) return [{ mesh, matrix: null }];
  return Array.from(c.source, (s, i) => ({ mesh: c.sources[s], matrix: c.matrices.subarray(16 * i, 16 * i + 16) }));
}

/** Positions transformed by a copy's matrix. */
export function brought(positions: Float32Array, m: Float32Array | null): Float32Array {
  if (!m) return positions;
  const out = new Float32Array(positions.length);
  for (let i = 0; i < positions.length; i += 3)
    for (let k = 0; k < 3; k++)
      out[i + k] = m[k] * positions[i] + m[4 + k] * positions[i + 1] + m[8 + k] * positions[i + 2] + m[12 + k];
  return out;
}

/** Face corners of everything that is placed, for budgets. */
export function cornersIn(placed: readonly Placed[]): number {
  return placed.reduce(
    (n, { mesh }) => n + mesh.connectivity.corners.length + drawTopologyOf(mesh.connectivity).lines.length,
    0,
  );
}
