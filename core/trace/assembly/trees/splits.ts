import { areaOf, numberThing } from './box';
import { lane } from './packet';

/**
 * Early split clipping. A long thin triangle across the axes leaves most of its box empty, and rays test it for
 * nothing: before a tree is built it gets several boxes, each around a part of it (M. Ernst & G. Greiner, “Early split
 * clipping for bounding volume hierarchies”, 2007). A budget of boxes is shared in proportion to the square root of
 * their surface areas, which minimises the sum of areas (T. Karras & T. Aila use the cube root, “Fast parallel
 * construction of high-quality bounding volume hierarchies”, 2013).
 *
 * The spare numbers of a box hold the index of its triangle and the number of its parts.
 */
const SPLITS: usize = 28;
/**
 * Surface area of a box relative to the least that boxes of its parts could have in sum: 2 to 3 for a well-shaped
 * triangle.
 */
const LONG: f32 = 4;
const EVEN: f32 = 2.5;
/** Splitting gains nothing if long triangles have less than this share of the total surface area. */
const MATTERS: f32 = 0.3;
/** Most parts of a triangle. */
const MAX_SPLITS: f32 = 32;
/** A triangle that fills less than this of its box is a line, which no ray hits. */
const LINE: f32 = 0.000001;

/** Margin of the boxes of parts beyond rounding error, relative to their distance from the origin. */
const BEYOND: f32 = 0.000001;

/**
 * Notes in each box the index of its triangle and its number of parts.
 *
 * @param boxes as `triangleBoxes` wrote them, `count` of them
 * @param most extra boxes allowed
 * @returns most extra boxes there will be; 0 if splitting would gain little
 */
export function planSplits(boxes: usize, corners: usize, count: i32, most: i32): i32 {
  let wanted: f32 = 0;
  let all: f32 = 0;
  let long: f32 = 0;
  let at = boxes;
  for (let i = 0; i < count; i++, at += 32, corners += 48) {
    const a = v128.load(corners);
    const u = f32x4.sub(v128.load(corners, 16), a);
    const v = f32x4.sub(v128.load(corners, 32), a);
    // Twice the projected area along each axis.
    const shows = f32x4.abs(
      f32x4.sub(
        f32x4.mul(v128.shuffle<f32>(u, u, 1, 2, 0, 3), v128.shuffle<f32>(v, v, 2, 0, 1, 3)),
        f32x4.mul(v128.shuffle<f32>(u, u, 2, 0, 1, 3), v128.shuffle<f32>(v, v, 1, 2, 0, 3)),
      ),
    );
    const least: f32 =
      0.5 * (f32x4.extract_lane(shows, 0) + f32x4.extract_lane(shows, 1) + f32x4.extract_lane(shows, 2));
    const area = areaOf(v128.load(at), v128.load(at, 16));
    let splits: f32 = 1;
    if (least <= LINE * area) {
      v128.store(at, a);
      v128.store(at, a, 16);
    } else if (area > LONG * least) {
      splits = min(MAX_SPLITS, floor<f32>(area / (EVEN * least)));
      long += area;
    }
    all += area;
    numberThing(at, i);
    store<f32>(at, splits, SPLITS);
    wanted += splits - 1;
  }
  if (long < MATTERS * all) return 0;
  if (wanted <= <f32>most) return <i32>wanted;
  return distribute(boxes, count, most);
}

/** Reduces the number of parts until there are at most `most` extra boxes. */
function distribute(boxes: usize, count: i32, most: i32): i32 {
  let high: f32 = 0;
  let largest: f32 = 0;
  const end = boxes + (<usize>count << 5);
  for (let at = boxes; at < end; at += 32) {
    if (!(load<f32>(at, SPLITS) > 1)) continue;
    const root = rootOf(at);
    largest = max(largest, root);
    high = max(high, load<f32>(at, SPLITS) / root);
  }
  // So few that none has two.
  let low: f32 = 1.99 / largest;
  for (let k = 0; k < 10; k++) {
    const each = sqrt<f32>(low * high);
    let more: f32 = 0;
    for (let at = boxes; at < end; at += 32) if (load<f32>(at, SPLITS) > 1) more += splitsBy(at, each) - 1;
    if (more > <f32>most) high = each;
    else low = each;
  }
  let more: f32 = 0;
  for (let at = boxes; at < end; at += 32) {
    if (!(load<f32>(at, SPLITS) > 1)) continue;
    const splits = splitsBy(at, low);
    store<f32>(at, splits, SPLITS);
    more += splits - 1;
  }
  return <i32>more;
}

@inline
function rootOf(box: usize): f32 {
  return sqrt<f32>(max<f32>(1e-30, areaOf(v128.load(box), v128.load(box, 16))));
}
@inline
function splitsBy(box: usize, each: f32): f32 {
  return max<f32>(1, min(load<f32>(box, SPLITS), floor<f32>(each * rootOf(box))));
}

let a: v128 = f32x4.splat(0);
let b: v128 = f32x4.splat(0);
let c: v128 = f32x4.splat(0);
let number: i32 = 0;
/** Where the box of the triangle stands, whether a part has taken its place, and the next free place. */
let slot: usize = 0;
let placed: bool = false;
let free: usize = 0;

/**
 * Writes the boxes of all parts, the extra ones behind the others.
 *
 * @param more what `planSplits` returned
 * @returns how many boxes there are
 */
export function splitTriangles(boxes: usize, corners: usize, count: i32, more: i32): i32 {
  if (more == 0) return count;
  free = boxes + (<usize>count << 5);
  for (let i = 0; i < count; i++, corners += 48) {
    slot = boxes + (<usize>i << 5);
    const splits = load<f32>(slot, SPLITS);
    if (!(splits > 1)) continue;
    a = v128.load(corners);
    b = v128.load(corners, 16);
    c = v128.load(corners, 32);
    number = load<i32>(slot, 12);
    placed = false;
    splitBox(v128.load(slot), v128.load(slot, 16), <i32>splits);
  }
  return <i32>((free - boxes) >> 5);
}

/** Writes a box in place of that of the whole triangle, or in the next free place. */
function emitBox(low: v128, high: v128): void {
  let at = slot;
  if (placed) {
    at = free;
    free += 32;
  }
  placed = true;
  v128.store(at, low);
  v128.store(at, high, 16);
  store<i32>(at, number, 12);
}

/** Bounds of what lies on one side of a plane across an axis. */
let sideLow: v128 = f32x4.splat(0);
let sideHigh: v128 = f32x4.splat(0);

function side(axis: i32, at: f32, below: bool): void {
  sideLow = f32x4.splat(Infinity);
  sideHigh = f32x4.splat(-Infinity);
  corner(a, axis, at, below);
  corner(b, axis, at, below);
  corner(c, axis, at, below);
  edge(a, b, axis, at);
  edge(b, c, axis, at);
  edge(c, a, axis, at);
}
@inline
function corner(p: v128, axis: i32, at: f32, below: bool): void {
  const x = lane(p, axis);
  if (below ? x <= at : x >= at) reach(p);
}
@inline
function edge(p: v128, q: v128, axis: i32, at: f32): void {
  const x = lane(p, axis);
  const y = lane(q, axis);
  if ((x < at) == (y < at)) return;
  reach(f32x4.add(p, f32x4.mul(f32x4.sub(q, p), f32x4.splat((at - x) / (y - x)))));
}
@inline
function reach(p: v128): void {
  sideLow = f32x4.pmin(sideLow, p);
  sideHigh = f32x4.pmax(sideHigh, p);
}

/** Splits what lies in a box into parts: halved across its longest side, recursively. */
function splitBox(low: v128, high: v128, splits: i32): void {
  if (splits < 2) return emitBox(low, high);
  const size = f32x4.sub(high, low);
  const x = lane(size, 0);
  const y = lane(size, 1);
  const z = lane(size, 2);
  const axis = x >= y && x >= z ? 0 : y >= z ? 1 : 2;
  const at: f32 = 0.5 * (lane(low, axis) + lane(high, axis));
  const beyond = f32x4.mul(f32x4.pmax(f32x4.abs(low), f32x4.abs(high)), f32x4.splat(BEYOND));
  side(axis, at, true);
  const belowLow = f32x4.pmax(low, f32x4.sub(sideLow, beyond));
  const belowHigh = f32x4.pmin(high, f32x4.add(sideHigh, beyond));
  side(axis, at, false);
  const aboveLow = f32x4.pmax(low, f32x4.sub(sideLow, beyond));
  const aboveHigh = f32x4.pmin(high, f32x4.add(sideHigh, beyond));
  if (isEmpty(belowLow, belowHigh) || isEmpty(aboveLow, aboveHigh)) return emitBox(low, high);
  const below = areaOf(belowLow, belowHigh);
  const distribute = below / (below + areaOf(aboveLow, aboveHigh));
  const some = min(splits - 1, max(1, <i32>(<f32>splits * distribute + 0.5)));
  splitBox(belowLow, belowHigh, some);
  splitBox(aboveLow, aboveHigh, splits - some);
}

@inline
function isEmpty(low: v128, high: v128): bool {
  return (i32x4.bitmask(f32x4.le(low, high)) & 7) != 7;
}
