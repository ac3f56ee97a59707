import { children, DEPTH } from './node';
import { allocate } from '../base/per-thread';
import { WHICH } from './packet';
import { AXIS, HIGH } from './tree';
import * as field from './field';
import * as scene from '../base/scene';

/** The last hit: distance, instance, triangle and barycentric coordinates. */
export let hitT: f32 = 0;
export let hitCopy: i32 = -1;
export let hitTriangle: i32 = -1;
export let hitU: f32 = 0;
export let hitV: f32 = 0;

/** A triangle that no ray hits while it is excluded; −1 for none. */
let excludedCopy: i32 = -1;
let excludedTriangle: i32 = -1;
/** The same within the mesh being traversed. */
let excludedHere: i32 = -1;

/** Excludes a triangle from now on. */
export function exclude(copy: i32, triangle: i32): void {
  excludedCopy = copy;
  excludedTriangle = triangle;
}

/** Traversal stacks: codes, and behind them the distances of their boxes. */
const upper = allocate(2 * DEPTH);
const lower = allocate(2 * DEPTH);
/** Distances of four triangles, and barycentric coordinates. */
const found = allocate(48);

/** The leaf of a tree over a single primitive. */
const SINGLE_LEAF: i32 = 0x80000000;

/** Direction components are never 0, so that their reciprocals are finite. */
@inline
function nonZero(d: f32): f32 {
  return abs(d) < 1e-18 ? (d < 0 ? -1e-18 : 1e-18) : d;
}

/**
 * Finds the nearest triangle between `from` and `to`.
 *
 * @param any any hit will do
 */
export function intersect(
  ox: f32,
  oy: f32,
  oz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  from: f32,
  to: f32,
  any: bool,
): bool {
  return any
    ? anyInScene(ox, oy, oz, dx, dy, dz, from, to)
    : closestInScene(ox, oy, oz, dx, dy, dz, from, to);
}

function closestInScene(
  ox: f32,
  oy: f32,
  oz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  from: f32,
  to: f32,
): bool {
  return traverseScene(ox, oy, oz, dx, dy, dz, from, to, false);
}
function anyInScene(
  ox: f32,
  oy: f32,
  oz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  from: f32,
  to: f32,
): bool {
  return traverseScene(ox, oy, oz, dx, dy, dz, from, to, true);
}

@inline
function traverseScene(
  ox: f32,
  oy: f32,
  oz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  from: f32,
  to: f32,
  any: bool,
): bool {
  hitT = to;
  hitCopy = -1;
  if (scene.copyCount == 0) return false;
  const ix: f32 = 1 / nonZero(dx);
  const iy: f32 = 1 / nonZero(dy);
  const iz: f32 = 1 / nonZero(dz);
  const vx = f32x4.splat(ox);
  const vy = f32x4.splat(oy);
  const vz = f32x4.splat(oz);
  const wx = f32x4.splat(ix);
  const wy = f32x4.splat(iy);
  const wz = f32x4.splat(iz);
  // The near side of boxes along each axis.
  const sx: usize = dx < 0 ? HIGH : 0;
  const sy: usize = dy < 0 ? HIGH + AXIS : AXIS;
  const sz: usize = dz < 0 ? HIGH + 2 * AXIS : 2 * AXIS;
  const start = f32x4.splat(from);
  let depth: usize = 0;
  let node = scene.singleMesh ? SINGLE_LEAF : 0;
  while (true) {
    if (node >= 0) {
      const more = children(node, vx, vy, vz, wx, wy, wz, sx, sy, sz, start, hitT, upper, depth, any);
      depth += <usize><u32>more;
      if (!any && <u32>more) {
        depth -= 4;
        node = <i32>(more >> 32);
        continue;
      }
    } else {
      const copy = node & 0x7fffffff;
      const at = scene.copies + <usize>copy * scene.COPY;
      let px = ox;
      let py = oy;
      let pz = oz;
      let qx = dx;
      let qy = dy;
      let qz = dz;
      if (load<i32>(at, scene.COPY_PLAIN) == 0) {
        px = transformed(at, ox, oy, oz) + load<f32>(at, 12);
        py = transformed(at + 16, ox, oy, oz) + load<f32>(at, 28);
        pz = transformed(at + 32, ox, oy, oz) + load<f32>(at, 44);
        qx = transformed(at, dx, dy, dz);
        qy = transformed(at + 16, dx, dy, dz);
        qz = transformed(at + 32, dx, dy, dz);
      }
      const root = load<i32>(at, scene.COPY_NODE);
      excludedHere = copy == excludedCopy ? excludedTriangle : -1;
      if (field.isField(root)) {
        const t = field.marchForm(root, px, py, pz, qx, qy, qz, from, hitT);
        if (t >= 0 && t < hitT) {
          setHit(t, copy, 0, 0, 0);
          if (any) return true;
        }
      } else if (
        any ? anyInMesh(root, px, py, pz, qx, qy, qz, from) : closestInMesh(root, px, py, pz, qx, qy, qz, from)
      ) {
        hitCopy = copy;
        if (any) return true;
      }
    }
    // Pops the next entry that is not beyond the hit found meanwhile.
    do {
      if (depth == 0) return hitCopy >= 0;
      depth -= 4;
    } while (!any && load<f32>(upper + depth, DEPTH) > hitT);
    node = load<i32>(upper + depth);
  }
}

@inline
function transformed(row: usize, x: f32, y: f32, z: f32): f32 {
  return load<f32>(row) * x + load<f32>(row, 4) * y + load<f32>(row, 8) * z;
}

/** Traverses one mesh in object space. */
function closestInMesh(
  root: i32,
  ox: f32,
  oy: f32,
  oz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  from: f32,
): bool {
  return traverseMesh(root, ox, oy, oz, dx, dy, dz, from, false);
}
function anyInMesh(
  root: i32,
  ox: f32,
  oy: f32,
  oz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  from: f32,
): bool {
  return traverseMesh(root, ox, oy, oz, dx, dy, dz, from, true);
}

@inline
function traverseMesh(
  root: i32,
  ox: f32,
  oy: f32,
  oz: f32,
  dx: f32,
  dy: f32,
  dz: f32,
  from: f32,
  any: bool,
): bool {
  const ix: f32 = 1 / nonZero(dx);
  const iy: f32 = 1 / nonZero(dy);
  const iz: f32 = 1 / nonZero(dz);
  const vx = f32x4.splat(ox);
  const vy = f32x4.splat(oy);
  const vz = f32x4.splat(oz);
  const wx = f32x4.splat(ix);
  const wy = f32x4.splat(iy);
  const wz = f32x4.splat(iz);
  // The near side of boxes along each axis.
  const sx: usize = dx < 0 ? HIGH : 0;
  const sy: usize = dy < 0 ? HIGH + AXIS : AXIS;
  const sz: usize = dz < 0 ? HIGH + 2 * AXIS : 2 * AXIS;
  const start = f32x4.splat(from);
  let depth: usize = 0;
  let node = root;
  let there = false;
  while (true) {
    if (node >= 0) {
      const more = children(node, vx, vy, vz, wx, wy, wz, sx, sy, sz, start, hitT, lower, depth, any);
      depth += <usize><u32>more;
      if (!any && <u32>more) {
        depth -= 4;
        node = <i32>(more >> 32);
        continue;
      }
    } else if (intersectPacket(scene.packets + <usize>(node & 0x7fffffff), ox, oy, oz, dx, dy, dz, from)) {
      if (any) return true;
      there = true;
    }
    do {
      if (depth == 0) return there;
      depth -= 4;
    } while (!any && load<f32>(lower + depth, DEPTH) > hitT);
    node = load<i32>(lower + depth);
  }
}

/** Four triangles at once (T. Möller & B. Trumbore, 1997). */
@inline
function intersectPacket(at: usize, ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32, from: f32): bool {
  const vx = f32x4.splat(dx);
  const vy = f32x4.splat(dy);
  const vz = f32x4.splat(dz);
  const ax = v128.load(at, 48);
  const ay = v128.load(at, 64);
  const az = v128.load(at, 80);
  const bx = v128.load(at, 96);
  const by = v128.load(at, 112);
  const bz = v128.load(at, 128);
  const px = f32x4.sub(f32x4.mul(vy, bz), f32x4.mul(vz, by));
  const py = f32x4.sub(f32x4.mul(vz, bx), f32x4.mul(vx, bz));
  const pz = f32x4.sub(f32x4.mul(vx, by), f32x4.mul(vy, bx));
  const det = f32x4.add(f32x4.add(f32x4.mul(ax, px), f32x4.mul(ay, py)), f32x4.mul(az, pz));
  const sign = v128.and(det, f32x4.splat(-0.0));
  const size = f32x4.abs(det);
  const sx = f32x4.sub(f32x4.splat(ox), v128.load(at));
  const sy = f32x4.sub(f32x4.splat(oy), v128.load(at, 16));
  const sz = f32x4.sub(f32x4.splat(oz), v128.load(at, 32));
  // Compared as multiples of the determinant: most rays miss, and a miss needs no division.
  const u = v128.xor(f32x4.add(f32x4.add(f32x4.mul(sx, px), f32x4.mul(sy, py)), f32x4.mul(sz, pz)), sign);
  const qx = f32x4.sub(f32x4.mul(sy, az), f32x4.mul(sz, ay));
  const qy = f32x4.sub(f32x4.mul(sz, ax), f32x4.mul(sx, az));
  const qz = f32x4.sub(f32x4.mul(sx, ay), f32x4.mul(sy, ax));
  const v = v128.xor(f32x4.add(f32x4.add(f32x4.mul(vx, qx), f32x4.mul(vy, qy)), f32x4.mul(vz, qz)), sign);
  const zero = f32x4.splat(0);
  // A degenerate triangle has no determinant and is never hit.
  const inside = v128.and(
    v128.and(f32x4.ge(u, zero), f32x4.ge(v, zero)),
    v128.and(f32x4.le(f32x4.add(u, v), size), f32x4.gt(size, zero)),
  );
  const t = v128.xor(f32x4.add(f32x4.add(f32x4.mul(bx, qx), f32x4.mul(by, qy)), f32x4.mul(bz, qz)), sign);
  let mask = i32x4.bitmask(
    v128.and(
      inside,
      v128.and(f32x4.gt(t, f32x4.mul(size, f32x4.splat(from))), f32x4.lt(t, f32x4.mul(size, f32x4.splat(hitT)))),
    ),
  );
  if (!mask) return false;
  const inverse = f32x4.div(f32x4.splat(1), size);
  v128.store(found, f32x4.mul(t, inverse));
  v128.store(found, f32x4.mul(u, inverse), 16);
  v128.store(found, f32x4.mul(v, inverse), 32);
  let firstHit = false;
  while (mask) {
    const k: usize = <usize>ctz(mask) << 2;
    mask &= mask - 1;
    const tk = load<f32>(found + k);
    const which = load<i32>(at + k, WHICH);
    if (tk < hitT && which != excludedHere) {
      firstHit = true;
      hitT = tk;
      hitU = load<f32>(found + k, 16);
      hitV = load<f32>(found + k, 32);
      hitTriangle = which;
    }
  }
  return firstHit;
}

/** Restores a hit after another query. */
export function restore(t: f32, copy: i32, triangle: i32): void {
  hitT = t;
  hitCopy = copy;
  hitTriangle = triangle;
}

/** Records a hit. */
export function setHit(t: f32, copy: i32, triangle: i32, u: f32, v: f32): void {
  hitT = t;
  hitCopy = copy;
  hitTriangle = triangle;
  hitU = u;
  hitV = v;
}
