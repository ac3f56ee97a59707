import { allocate } from '../base/per-thread';

/**
 * The dielectric bodies that a path is inside of. Where bodies overlap, the one with the highest index of refraction
 * fills the overlap, whichever side one comes from (C. M. Schmidt & B. Budge, “Simple Nested Dielectrics in Ray Traced
 * Images”, 2002, with the index in place of a priority to be set); boundaries of the others are ignored.
 */
const MAX_NESTED = 12;
/** Of each: its surface, index of refraction, and absorption of red, green and blue per metre. */
const BYTES: usize = 20;
const list = allocate(12 * 20);
let count: i32 = 0;

export function clear(): void {
  count = 0;
}

const saved = allocate(12 * 20);
let keptCount: i32 = 0;

/** Saves the list for `restore`. */
export function save(): void {
  keptCount = count;
  memory.copy(saved, list, <usize>count * BYTES);
}

export function restore(): void {
  count = keptCount;
  memory.copy(list, saved, <usize>count * BYTES);
}

@inline
function at(k: i32): usize {
  return list + <usize>k * BYTES;
}

/** The medium that fills the overlap: the highest index, among equals the one entered last. −1 for air. */
function topMedium(): i32 {
  let best = -1;
  for (let k = 0; k < count; k++) if (best < 0 || load<f32>(at(k), 4) >= load<f32>(at(best), 4)) best = k;
  return best;
}

function lastOf(id: i32): i32 {
  for (let k = count - 1; k >= 0; k--) if (load<i32>(at(k)) == id) return k;
  return -1;
}

/** Index of refraction at the path. */
export function index(): f32 {
  const k = topMedium();
  return k < 0 ? 1 : load<f32>(at(k), 4);
}

/** Whether there is air beyond the body that is about to be left. */
export function isLast(): bool {
  return count <= 1;
}

/** Index of refraction beyond a boundary of a body. */
export function indexBeyond(id: i32, ior: f32, entering: bool): f32 {
  if (entering) return max(index(), ior);
  const k = lastOf(id);
  if (k < 0) return index();
  const saved = load<f32>(at(k), 4);
  store<f32>(at(k), 0, 4);
  const beyond = max<f32>(1, index());
  store<f32>(at(k), saved, 4);
  return count == 1 ? 1 : beyond;
}

/** Whether a boundary is real, that is, changes the medium. Leaving a body that was never entered counts as real. */
export function isBoundary(id: i32, ior: f32, entering: bool): bool {
  if (entering) return count == 0 || ior >= index();
  const k = lastOf(id);
  return k < 0 ? count == 0 : topMedium() == k;
}

export function enter(id: i32, ior: f32, r: f32, g: f32, b: f32): void {
  if (count == MAX_NESTED) return;
  const o = at(count++);
  store<i32>(o, id);
  store<f32>(o, ior, 4);
  store<f32>(o, r, 8);
  store<f32>(o, g, 12);
  store<f32>(o, b, 16);
}

export function leave(id: i32): void {
  const k = lastOf(id);
  if (k < 0) return;
  count--;
  for (let i = k; i < count; i++) memory.copy(at(i), at(i + 1), BYTES);
}

/** Address of the absorption per metre at the path; 0 if nothing absorbs. */
export function absorption(): usize {
  const k = topMedium();
  return k < 0 ? 0 : at(k) + 8;
}
