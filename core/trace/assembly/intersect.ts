import { NODE, PACKET } from './tree';
import * as field from './field';
import * as scene from './scene';

/** What a ray met last: how far, which copy and triangle, and where in it. */
export let hitT: f32 = 0;
export let hitCopy: i32 = -1;
export let hitTriangle: i32 = -1;
export let hitU: f32 = 0;
export let hitV: f32 = 0;

/** Stacks, deep enough for any tree: a node puts at most three more aside. */
const upper = memory.data(192 * 8, 16);
const lower = memory.data(192 * 8, 16);
/** Distances of the four boxes of a node. */
const distances = memory.data(16, 16);
/** Distances of four triangles, and places in them. */
const found = memory.data(48, 16);

/** No direction is quite along an axis: its inverse is a number. */
@inline
function held(d: f32): f32 {
  return abs(d) < 1e-18 ? (d < 0 ? -1e-18 : 1e-18) : d;
}

/**
 * Follows a ray to the nearest triangle between `from` and `to`.
 *
 * @param any the first that is found will do
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
  hitT = to;
  hitCopy = -1;
  if (scene.copyCount == 0) return false;
  const ix: f32 = 1 / held(dx);
  const iy: f32 = 1 / held(dy);
  const iz: f32 = 1 / held(dz);
  const vx = f32x4.splat(ox);
  const vy = f32x4.splat(oy);
  const vz = f32x4.splat(oz);
  const wx = f32x4.splat(ix);
  const wy = f32x4.splat(iy);
  const wz = f32x4.splat(iz);
  // The side of a box that the ray comes to first, along each axis.
  const sx: usize = dx < 0 ? 48 : 0;
  const sy: usize = dy < 0 ? 64 : 16;
  const sz: usize = dz < 0 ? 80 : 32;
  const start = f32x4.splat(from);
  let depth: usize = 0;
  let node = 0;
  while (true) {
    if (node >= 0) {
      const next = children(node, vx, vy, vz, wx, wy, wz, sx, sy, sz, start, upper, depth);
      depth = stacked;
      if (next != -1) {
        node = next;
        continue;
      }
    } else {
      const count = node & 7;
      const first = (node & 0x7fffffff) >> 3;
      for (let k = 0; k < count; k++) {
        const copy = load<i32>(scene.order + (<usize>(first + k) << 2));
        const at = scene.copies + <usize>copy * scene.COPY;
        const px = transformed(at, ox, oy, oz) + load<f32>(at, 12);
        const py = transformed(at + 16, ox, oy, oz) + load<f32>(at, 28);
        const pz = transformed(at + 32, ox, oy, oz) + load<f32>(at, 44);
        const root = load<i32>(at, scene.COPY_NODE);
        if (field.isField(root)) {
          const t = field.reach(
            root,
            px,
            py,
            pz,
            transformed(at, dx, dy, dz),
            transformed(at + 16, dx, dy, dz),
            transformed(at + 32, dx, dy, dz),
            from,
            hitT,
          );
          if (t >= 0 && t < hitT) {
            meet(t, copy, 0, 0, 0);
            if (any) return true;
          }
        } else if (
          within(
            root,
            px,
            py,
            pz,
            transformed(at, dx, dy, dz),
            transformed(at + 16, dx, dy, dz),
            transformed(at + 32, dx, dy, dz),
            from,
            any,
          )
        ) {
          hitCopy = copy;
          if (any) return true;
        }
      }
    }
    // The next that was put aside and is not farther than what was met meanwhile.
    do {
      if (depth == 0) return hitCopy >= 0;
      depth--;
    } while (load<f32>(upper + (depth << 3), 4) > hitT);
    node = load<i32>(upper + (depth << 3));
  }
}

@inline
function transformed(row: usize, x: f32, y: f32, z: f32): f32 {
  return load<f32>(row) * x + load<f32>(row, 4) * y + load<f32>(row, 8) * z;
}

let stacked: usize = 0;

/** Looks at the four boxes of a node: gives the nearest that is met, −1 for none, and puts the others aside, far ones first. */
@inline
function children(
  node: i32,
  vx: v128,
  vy: v128,
  vz: v128,
  wx: v128,
  wy: v128,
  wz: v128,
  sx: usize,
  sy: usize,
  sz: usize,
  start: v128,
  stack: usize,
  depth: usize,
): i32 {
  const at = scene.nodes + <usize>node * NODE;
  // The plain minimum and maximum of the processor: what of their first argument is no number stays so. Boxes that are
  // not there are no numbers, and no comparison with them holds.
  const near = f32x4.pmax(
    f32x4.pmax(
      f32x4.mul(f32x4.sub(v128.load(at + sx), vx), wx),
      f32x4.mul(f32x4.sub(v128.load(at + sy), vy), wy),
    ),
    f32x4.pmax(f32x4.mul(f32x4.sub(v128.load(at + sz), vz), wz), start),
  );
  const far = f32x4.pmin(
    f32x4.pmin(
      f32x4.mul(f32x4.sub(v128.load(at + 48 - sx), vx), wx),
      f32x4.mul(f32x4.sub(v128.load(at + 80 - sy), vy), wy),
    ),
    f32x4.pmin(f32x4.mul(f32x4.sub(v128.load(at + 112 - sz), vz), wz), f32x4.splat(hitT)),
  );
  // Rounding may bring the far side a little before the near one.
  let mask = i32x4.bitmask(f32x4.le(near, f32x4.mul(far, f32x4.splat(1.0000004))));
  if (!mask) {
    stacked = depth;
    return -1;
  }
  v128.store(distances, near);
  let k = ctz(mask);
  let best = load<i32>(at + (<usize>k << 2), 96);
  mask &= mask - 1;
  if (mask) {
    let bestT = load<f32>(distances + (<usize>k << 2));
    do {
      k = ctz(mask);
      mask &= mask - 1;
      const code = load<i32>(at + (<usize>k << 2), 96);
      const t = load<f32>(distances + (<usize>k << 2));
      if (t < bestT) {
        depth = put(stack, depth, best, bestT);
        best = code;
        bestT = t;
      } else depth = put(stack, depth, code, t);
    } while (mask);
  }
  stacked = depth;
  return best;
}

@inline
function put(stack: usize, depth: usize, code: i32, t: f32): usize {
  const o = stack + (depth << 3);
  store<i32>(o, code);
  store<f32>(o, t, 4);
  return depth + 1;
}

/** Follows a ray through one shape, in its own space. */
function within(
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
  const ix: f32 = 1 / held(dx);
  const iy: f32 = 1 / held(dy);
  const iz: f32 = 1 / held(dz);
  const vx = f32x4.splat(ox);
  const vy = f32x4.splat(oy);
  const vz = f32x4.splat(oz);
  const wx = f32x4.splat(ix);
  const wy = f32x4.splat(iy);
  const wz = f32x4.splat(iz);
  // The side of a box that the ray comes to first, along each axis.
  const sx: usize = dx < 0 ? 48 : 0;
  const sy: usize = dy < 0 ? 64 : 16;
  const sz: usize = dz < 0 ? 80 : 32;
  const start = f32x4.splat(from);
  let depth: usize = 0;
  let node = root;
  let there = false;
  while (true) {
    if (node >= 0) {
      const next = children(node, vx, vy, vz, wx, wy, wz, sx, sy, sz, start, lower, depth);
      depth = stacked;
      if (next != -1) {
        node = next;
        continue;
      }
    } else if (packet(scene.packets + <usize>(node & 0x7fffffff) * PACKET, ox, oy, oz, dx, dy, dz, from)) {
      if (any) return true;
      there = true;
    }
    do {
      if (depth == 0) return there;
      depth--;
    } while (load<f32>(lower + (depth << 3), 4) > hitT);
    node = load<i32>(lower + (depth << 3));
  }
}

/** Four triangles at once (T. Möller & B. Trumbore, 1997). */
@inline
function packet(at: usize, ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32, from: f32): bool {
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
  const inv = f32x4.div(f32x4.splat(1), det);
  const sx = f32x4.sub(f32x4.splat(ox), v128.load(at));
  const sy = f32x4.sub(f32x4.splat(oy), v128.load(at, 16));
  const sz = f32x4.sub(f32x4.splat(oz), v128.load(at, 32));
  const u = f32x4.mul(f32x4.add(f32x4.add(f32x4.mul(sx, px), f32x4.mul(sy, py)), f32x4.mul(sz, pz)), inv);
  const qx = f32x4.sub(f32x4.mul(sy, az), f32x4.mul(sz, ay));
  const qy = f32x4.sub(f32x4.mul(sz, ax), f32x4.mul(sx, az));
  const qz = f32x4.sub(f32x4.mul(sx, ay), f32x4.mul(sy, ax));
  const v = f32x4.mul(f32x4.add(f32x4.add(f32x4.mul(vx, qx), f32x4.mul(vy, qy)), f32x4.mul(vz, qz)), inv);
  const t = f32x4.mul(f32x4.add(f32x4.add(f32x4.mul(bx, qx), f32x4.mul(by, qy)), f32x4.mul(bz, qz)), inv);
  const zero = f32x4.splat(0);
  // A triangle of no size has no determinant; what is worked out of it is no number, and no comparison holds.
  let mask = i32x4.bitmask(
    v128.and(
      v128.and(v128.and(f32x4.ge(u, zero), f32x4.ge(v, zero)), f32x4.le(f32x4.add(u, v), f32x4.splat(1))),
      v128.and(v128.and(f32x4.gt(t, f32x4.splat(from)), f32x4.lt(t, f32x4.splat(hitT))), f32x4.ne(det, zero)),
    ),
  );
  if (!mask) return false;
  v128.store(found, t);
  v128.store(found, u, 16);
  v128.store(found, v, 32);
  while (mask) {
    const k: usize = <usize>ctz(mask) << 2;
    mask &= mask - 1;
    const tk = load<f32>(found + k);
    if (tk < hitT) {
      hitT = tk;
      hitU = load<f32>(found + k, 16);
      hitV = load<f32>(found + k, 32);
      hitTriangle = load<i32>(at + k, 144);
    }
  }
  return true;
}

/** Takes back what was met, after a look at something else. */
export function restore(t: f32, copy: i32, triangle: i32): void {
  hitT = t;
  hitCopy = copy;
  hitTriangle = triangle;
}

/** Says that something was met. */
export function meet(t: f32, copy: i32, triangle: i32, u: f32, v: f32): void {
  hitT = t;
  hitCopy = copy;
  hitTriangle = triangle;
  hitU = u;
  hitV = v;
}
