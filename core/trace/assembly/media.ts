import { ownRoom } from './own';

/**
 * What a path is inside of. Where bodies of glass lie in each other, the one of the higher index is there, whichever
 * side one comes from (C. M. Schmidt & B. Budge, “Simple Nested Dielectrics in Ray Traced Images”, 2002, with the
 * index in place of a priority that would have to be set): borders of the others are passed as if they were not there.
 */
const MOST = 12;
/** Of each: which surface it is, its index, and what it absorbs of red, green and blue per metre. */
const BYTES: usize = 20;
const list = ownRoom(12 * 20);
let count: i32 = 0;

export function outOfAll(): void {
  count = 0;
}

const kept = ownRoom(12 * 20);
let keptCount: i32 = 0;

/** Keeps it for comeBack. */
export function keep(): void {
  keptCount = count;
  memory.copy(kept, list, <usize>count * BYTES);
}

export function comeBack(): void {
  count = keptCount;
  memory.copy(list, kept, <usize>count * BYTES);
}

@inline
function at(k: i32): usize {
  return list + <usize>k * BYTES;
}

/** The one that is there: of the highest index, of those the one entered last. −1 for air. */
function top(): i32 {
  let best = -1;
  for (let k = 0; k < count; k++) if (best < 0 || load<f32>(at(k), 4) >= load<f32>(at(best), 4)) best = k;
  return best;
}

function last(id: i32): i32 {
  for (let k = count - 1; k >= 0; k--) if (load<i32>(at(k)) == id) return k;
  return -1;
}

/** Index of what is there. */
export function index(): f32 {
  const k = top();
  return k < 0 ? 1 : load<f32>(at(k), 4);
}

/** Whether there is air beyond the body that is about to be left. */
export function isLast(): bool {
  return count <= 1;
}

/** Index of what would be there beyond a border of a body. */
export function indexBeyond(id: i32, ior: f32, entering: bool): f32 {
  if (entering) return max(index(), ior);
  const k = last(id);
  if (k < 0) return index();
  const kept = load<f32>(at(k), 4);
  store<f32>(at(k), 0, 4);
  const beyond = max<f32>(1, index());
  store<f32>(at(k), kept, 4);
  return count == 1 ? 1 : beyond;
}

/** Whether a border of a body is really one: what is there changes. A body that was not entered is left for what is there. */
export function matters(id: i32, ior: f32, entering: bool): bool {
  if (entering) return count == 0 || ior >= index();
  const k = last(id);
  return k < 0 ? count == 0 : top() == k;
}

export function enter(id: i32, ior: f32, r: f32, g: f32, b: f32): void {
  if (count == MOST) return;
  const o = at(count++);
  store<i32>(o, id);
  store<f32>(o, ior, 4);
  store<f32>(o, r, 8);
  store<f32>(o, g, 12);
  store<f32>(o, b, 16);
}

export function leave(id: i32): void {
  const k = last(id);
  if (k < 0) return;
  count--;
  for (let i = k; i < count; i++) memory.copy(at(i), at(i + 1), BYTES);
}

/** What is absorbed per metre where the path is; 0 for nothing that absorbs. */
export function absorbs(): usize {
  const k = top();
  return k < 0 ? 0 : at(k) + 8;
}
