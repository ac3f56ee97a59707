import type { Surfaces } from '../../finish/finish';
import { patterns } from '../../pattern/kinds/index';
import { ambientOcclusionOf } from '../../shape/ambient-occlusion';
import { drawBuffers, drawTopologyOf } from '../../shape/drawable';
import type { Mesh } from '../../shape/mesh';

/** A triangle mesh as the path tracer takes it. */
export interface TraceMesh {
  /** 3 numbers per vertex. */
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** 3 vertices per triangle. */
  readonly triangles: Uint32Array;
  /** Face kind of each triangle. */
  readonly kinds: Uint8Array;
  /** 2 numbers per corner. */
  readonly uv?: Float32Array;
  /** Ambient occlusion, 0 (open) to 1, one per vertex. */
  readonly occlusion?: Float32Array;
}

/** Ambient occlusion is computed once per shape. */
const depths = new WeakMap<Mesh, Float32Array>();

/** Triangulates a shape. */
export function traceMeshOf(mesh: Mesh, withOcclusion: boolean): TraceMesh {
  const { triangles, groups, uv, source } = drawTopologyOf(mesh.connectivity);
  const kinds = new Uint8Array(triangles.length / 3);
  for (const { slot, start, count } of groups) kinds.fill(slot, start / 3, (start + count) / 3);
  let deep: Float32Array | undefined;
  if (withOcclusion) {
    deep = depths.get(mesh);
    if (!deep) depths.set(mesh, (deep = ambientOcclusionOf(mesh)));
  }
  return {
    ...drawBuffers(mesh),
    triangles,
    kinds,
    ...(uv ? { uv } : {}),
    ...(deep ? { occlusion: Float32Array.from(source, (v) => deep[v]) } : {}),
  };
}

/** Whether any pattern of these surfaces depends on ambient occlusion. */
export function needsOcclusion(surfaces: Surfaces): boolean {
  return Object.values(surfaces).some((s) =>
    s.patterns.some((p) => p.layers.some(({ kind }) => patterns.get(kind).occlusion ?? false)),
  );
}
