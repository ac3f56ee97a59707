import * as hit from '../trees/intersect';
import { allocate } from '../base/per-thread';
import * as scene from '../base/scene';
import * as s from '../surfaces/surface';

/** Material at the shading point of the path, and material at the hit of a shadow ray. */
export const here = allocate(s.SURFACE);
export const there = allocate(s.SURFACE);

/** Kind of the face that was hit; a distance field has one kind only. */
@inline
function faceKindOf(mesh: usize): u8 {
  const kinds: usize = load<u32>(mesh, 8);
  return kinds ? load<u8>(kinds + <usize>hit.hitTriangle) : 0;
}

/** Copies the material of the hit, with the overrides of its instance. Returns the index of its surface. */
export function loadHitSurface(copy: usize, at: usize): i32 {
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const kind = faceKindOf(mesh);
  const index = load<i32>(copy, scene.COPY_SURFACE) + <i32>kind;
  const from = scene.surfaces + <usize>index * s.SURFACE;
  // memory.copy is a call, which takes longer than this loop.
  for (let i: usize = 0; i < s.SURFACE; i += 16) v128.store(at + i, v128.load(from + i));
  // Overrides apply to the main finish only.
  if (kind != 0) return index;
  const red = load<f32>(copy, scene.COPY_BASE);
  if (red == red) {
    store<f32>(at, red);
    store<f32>(at, load<f32>(copy, scene.COPY_BASE + 4), 4);
    store<f32>(at, load<f32>(copy, scene.COPY_BASE + 8), 8);
  }
  const rough = load<f32>(copy, scene.COPY_ROUGHNESS);
  if (rough == rough) store<f32>(at, rough, s.ROUGHNESS);
  const metal = load<f32>(copy, scene.COPY_METALNESS);
  if (metal == metal) store<f32>(at, metal, s.METALNESS);
  return index;
}

/** Whether light may pass straight through the hit; patterns are not evaluated. */
export function mayTransmit(): bool {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const kind = faceKindOf(mesh);
  const at = scene.surfaces + (<usize>load<i32>(copy, scene.COPY_SURFACE) + <usize>kind) * s.SURFACE;
  return load<f32>(at, s.CLEAR) > 0;
}
