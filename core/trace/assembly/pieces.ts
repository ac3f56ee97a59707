import { areaOf, numberThing } from './box';
import { lane } from './packet';

/**
 * A long thin triangle across the axes leaves most of its box empty, and rays look at it for nothing: it gets several
 * boxes, each round a piece of it, before a tree is built (M. Ernst & G. Greiner, “Early split clipping for bounding
 * volume hierarchies”, 2007). How many each, of a number for all, goes by the root of its box's surface: so the sum of
 * surfaces becomes least (as T. Karras & T. Aila have it by the cube root, “Fast parallel construction of high-quality
 * bounding volume hierarchies”, 2013).
 *
 * The free numbers of a box tell which triangle it is of, and in how many pieces that is.
 */
const PIECES: usize = 28;
/** The surface of a box against the least that boxes of pieces could have together: of an even triangle it is 2 to 3. */
const LONG: f32 = 4;
const EVEN: f32 = 2.5;
/** Nothing is gained where long ones have less of the surface of all boxes than this. */
const MATTERS: f32 = 0.3;
/** Pieces of a triangle at most. */
const MOST: f32 = 32;
/** A triangle that has less of its box than this is a line: no ray meets it. */
const LINE: f32 = 0.000001;

/** Of pieces, how far their boxes reach beyond what rounding may have cut off, of how far they are from the middle. */
const BEYOND: f32 = 0.000001;

/**
 * Notes in boxes which triangle each is of, and in how many pieces it is to be.
 *
 * @param boxes as `triangleBoxes` has put them there, `count` of them
 * @param most boxes there may be more
 * @returns how many more there will be at most; none where that would bring little
 */
export function longTriangles(boxes: usize, corners: usize, count: i32, most: i32): i32 {
  let wanted: f32 = 0;
  let all: f32 = 0;
  let long: f32 = 0;
  let at = boxes;
  for (let i = 0; i < count; i++, at += 32, corners += 48) {
    const a = v128.load(corners);
    const u = f32x4.sub(v128.load(corners, 16), a);
    const v = f32x4.sub(v128.load(corners, 32), a);
    // Twice what shows of it along each axis.
    const shows = f32x4.abs(
      f32x4.sub(
        f32x4.mul(v128.shuffle<f32>(u, u, 1, 2, 0, 3), v128.shuffle<f32>(v, v, 2, 0, 1, 3)),
        f32x4.mul(v128.shuffle<f32>(u, u, 2, 0, 1, 3), v128.shuffle<f32>(v, v, 1, 2, 0, 3)),
      ),
    );
    const least: f32 =
      0.5 * (f32x4.extract_lane(shows, 0) + f32x4.extract_lane(shows, 1) + f32x4.extract_lane(shows, 2));
    const area = areaOf(v128.load(at), v128.load(at, 16));
    let pieces: f32 = 1;
    if (least <= LINE * area) {
      v128.store(at, a);
      v128.store(at, a, 16);
    } else if (area > LONG * least) {
      pieces = min(MOST, floor<f32>(area / (EVEN * least)));
      long += area;
    }
    all += area;
    numberThing(at, i);
    store<f32>(at, pieces, PIECES);
    wanted += pieces - 1;
  }
  if (long < MATTERS * all) return 0;
  if (wanted <= <f32>most) return <i32>wanted;
  return share(boxes, count, most);
}

/** Takes so many pieces away that there are `most` more boxes, or a few less. */
function share(boxes: usize, count: i32, most: i32): i32 {
  let high: f32 = 0;
  let largest: f32 = 0;
  const end = boxes + (<usize>count << 5);
  for (let at = boxes; at < end; at += 32) {
    if (!(load<f32>(at, PIECES) > 1)) continue;
    const root = rootOf(at);
    largest = max(largest, root);
    high = max(high, load<f32>(at, PIECES) / root);
  }
  // With so few none has two.
  let low: f32 = 1.99 / largest;
  for (let k = 0; k < 10; k++) {
    const each = sqrt<f32>(low * high);
    let more: f32 = 0;
    for (let at = boxes; at < end; at += 32) if (load<f32>(at, PIECES) > 1) more += piecesBy(at, each) - 1;
    if (more > <f32>most) high = each;
    else low = each;
  }
  let more: f32 = 0;
  for (let at = boxes; at < end; at += 32) {
    if (!(load<f32>(at, PIECES) > 1)) continue;
    const pieces = piecesBy(at, low);
    store<f32>(at, pieces, PIECES);
    more += pieces - 1;
  }
  return <i32>more;
}

@inline
function rootOf(box: usize): f32 {
  return sqrt<f32>(max<f32>(1e-30, areaOf(v128.load(box), v128.load(box, 16))));
}
@inline
function piecesBy(box: usize, each: f32): f32 {
  return max<f32>(1, min(load<f32>(box, PIECES), floor<f32>(each * rootOf(box))));
}

let a: v128 = f32x4.splat(0);
let b: v128 = f32x4.splat(0);
let c: v128 = f32x4.splat(0);
let number: i32 = 0;
/** Where the box of the triangle stands, whether one of its pieces has that place, and the next that is free. */
let place: usize = 0;
let placed: bool = false;
let free: usize = 0;

/**
 * Puts the boxes of pieces there, those that are more behind the others.
 *
 * @param more what `longTriangles` has told
 * @returns how many boxes there are
 */
export function putPieces(boxes: usize, corners: usize, count: i32, more: i32): i32 {
  if (more == 0) return count;
  free = boxes + (<usize>count << 5);
  for (let i = 0; i < count; i++, corners += 48) {
    place = boxes + (<usize>i << 5);
    const pieces = load<f32>(place, PIECES);
    if (!(pieces > 1)) continue;
    a = v128.load(corners);
    b = v128.load(corners, 16);
    c = v128.load(corners, 32);
    number = load<i32>(place, 12);
    placed = false;
    cut(v128.load(place), v128.load(place, 16), <i32>pieces);
  }
  return <i32>((free - boxes) >> 5);
}

/** A box, which takes the place of that of the whole triangle, or the next free one. */
function put(low: v128, high: v128): void {
  let at = place;
  if (placed) {
    at = free;
    free += 32;
  }
  placed = true;
  v128.store(at, low);
  v128.store(at, high, 16);
  store<i32>(at, number, 12);
}

/** What is on one side of a plane across an axis. */
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

/** Puts what lies in a box there in so many pieces: halved across its longest side, each half with its share of them. */
function cut(low: v128, high: v128, pieces: i32): void {
  if (pieces < 2) return put(low, high);
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
  if (isEmpty(belowLow, belowHigh) || isEmpty(aboveLow, aboveHigh)) return put(low, high);
  const below = areaOf(belowLow, belowHigh);
  const share = below / (below + areaOf(aboveLow, aboveHigh));
  const some = min(pieces - 1, max(1, <i32>(<f32>pieces * share + 0.5)));
  cut(belowLow, belowHigh, some);
  cut(aboveLow, aboveHigh, pieces - some);
}

@inline
function isEmpty(low: v128, high: v128): bool {
  return (i32x4.bitmask(f32x4.le(low, high)) & 7) != 7;
}
