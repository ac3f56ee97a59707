import type { Surfaces } from '../finish/finish';
import { patterns } from '../pattern/kinds/index';
import { crevicesOf } from '../shape/crevices';
import { drawBuffers, drawTopologyOf } from '../shape/drawable';
import type { Mesh } from '../shape/mesh';

/** Triangles as they are traced. */
export interface Drawn {
  /** 3 numbers a vertex. */
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** 3 vertices a triangle. */
  readonly triangles: Uint32Array;
  /** The kind of face of each triangle. */
  readonly kinds: Uint8Array;
  /** Place on the surface, 2 numbers a corner of a triangle. */
  readonly uv?: Float32Array;
  /** Depth of crevice, one a vertex. */
  readonly crevices?: Float32Array;
}

/** How deep faces lie is found out once for every shape. */
const depths = new WeakMap<Mesh, Float32Array>();

/** A shape as it is traced. */
export function drawnOf(mesh: Mesh, withCrevices: boolean): Drawn {
  const { triangles, groups, uv, source } = drawTopologyOf(mesh.connectivity);
  const kinds = new Uint8Array(triangles.length / 3);
  for (const { slot, start, count } of groups) kinds.fill(slot, start / 3, (start + count) / 3);
  let deep: Float32Array | undefined;
  if (withCrevices) {
    deep = depths.get(mesh);
    if (!deep) depths.set(mesh, (deep = crevicesOf(mesh)));
  }
  return {
    ...drawBuffers(mesh),
    triangles,
    kinds,
    ...(uv ? { uv } : {}),
    ...(deep ? { crevices: Float32Array.from(source, (v) => deep[v]) } : {}),
  };
}

/** Whether anything of a ribbon goes by how deep its faces lie. */
export function asksForCrevices(surfaces: Surfaces): boolean {
  return Object.values(surfaces).some((s) =>
    s.patterns.some((p) => p.layers.some(({ kind }) => patterns.get(kind).crevices ?? false)),
  );
}
