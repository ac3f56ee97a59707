import { BINARY, setLeaf, setParts } from './binary';
import { areaOf, numberThing } from './box';
import { leafCosts, nodeCosts } from './collapse';
import { allocate } from '../base/per-thread';
import { lane } from './packet';

/**
 * Builds a binary bounding volume hierarchy over triangles or instances by the surface area heuristic with bins (I.
 * Wald, “On fast construction of SAH-based bounding volume hierarchies”, 2007).
 *
 * Input boxes are 32 bytes: lowest x, y, z and the index of the primitive (box.ts), highest x, y, z and a spare number.
 * The boxes themselves are sorted into the order of the leaves, so that neighbours are read together.
 */
/**
 * Most primitives of a leaf: four triangles are tested at once. An instance is expensive to enter and has a leaf of its
 * own.
 */
const MOST_LEAF: i32 = 4;
const BINS: i32 = 12;
/** Bytes of a bin: its box, and its number of primitives. */
const BIN: usize = 48;
/** From this depth on ranges are halved by count, which ends soon whatever they contain. */
const HALVES: i32 = 96;

const bins = allocate(3 * 12 * 48);
const sums = allocate(12 * 8);

let boxes: usize = 0;
let nextNode: usize = 0;
let ofTriangles: bool = false;
let mostInLeaf: i32 = MOST_LEAF;

/**
 * @param at address of the boxes, `count` of them, which are reordered; boxes of triangles hold the triangle's index
 * @param room scratch space for nodes: at most two for each box
 * @returns address of the root
 */
export function buildBinary(at: usize, count: i32, triangles: bool, atmosphere: usize): usize {
  boxes = at;
  nextNode = atmosphere;
  ofTriangles = triangles;
  mostInLeaf = triangles ? MOST_LEAF : 1;
  if (!triangles) for (let i = 0; i < count; i++) numberThing(boxAt(i), i);
  bounds(0, count);
  return grow(0, count, foundLow, foundHigh, foundLeast, foundMost, 0);
}

function grow(first: i32, end: i32, low: v128, high: v128, least: v128, most: v128, depth: i32): usize {
  const node = nextNode;
  nextNode += BINARY;
  v128.store(node, low);
  v128.store(node, high, 16);
  if (end - first <= mostInLeaf) {
    setLeaf(node, first, end - first);
    leafCosts(node);
    return node;
  }
  const middle = split(first, end, least, most, depth >= HALVES);
  const low2 = lowB;
  const high2 = highB;
  const least2 = leastB;
  const most2 = mostB;
  const one = grow(first, middle, lowA, highA, leastA, mostA, depth + 1);
  const other = grow(middle, end, low2, high2, least2, most2, depth + 1);
  setParts(node, one, other);
  nodeCosts(node, one, other, areaOf(low, high));
  return node;
}

@inline
function boxAt(i: i32): usize {
  return boxes + (<usize>i << 5);
}

/** Bounds of a range, and bounds of its doubled centroids. */
let foundLow: v128 = f32x4.splat(0);
let foundHigh: v128 = f32x4.splat(0);
let foundLeast: v128 = f32x4.splat(0);
let foundMost: v128 = f32x4.splat(0);

function bounds(first: i32, end: i32): void {
  let low = f32x4.splat(Infinity);
  let high = f32x4.splat(-Infinity);
  let least = low;
  let most = high;
  for (let i = first; i < end; i++) {
    const l = v128.load(boxAt(i));
    const h = v128.load(boxAt(i), 16);
    const m = f32x4.add(l, h);
    low = f32x4.pmin(low, l);
    high = f32x4.pmax(high, h);
    least = f32x4.pmin(least, m);
    most = f32x4.pmax(most, m);
  }
  foundLow = low;
  foundHigh = high;
  foundLeast = least;
  foundMost = most;
}

/** Bounds of both sides of a split, and of the centroids in them. */
let lowA: v128 = f32x4.splat(0);
let highA: v128 = f32x4.splat(0);
let leastA: v128 = f32x4.splat(0);
let mostA: v128 = f32x4.splat(0);
let lowB: v128 = f32x4.splat(0);
let highB: v128 = f32x4.splat(0);
let leastB: v128 = f32x4.splat(0);
let mostB: v128 = f32x4.splat(0);

/**
 * Splits a range of boxes in two and returns where; never at an end.
 *
 * @param low of the range's centroids, doubled
 * @param halve split by count, whatever the range contains
 */
function split(first: i32, end: i32, low: v128, high: v128, halve: bool): i32 {
  const size = f32x4.sub(high, low);
  // An axis along which all centroids coincide puts everything into its first bin.
  const scale = f32x4.div(f32x4.splat(<f32>BINS * 0.99999), f32x4.pmax(size, f32x4.splat(1e-30)));
  for (let o: usize = 0; o < 3 * BINS * BIN; o += BIN) {
    v128.store(bins + o, f32x4.splat(Infinity));
    v128.store(bins + o, f32x4.splat(-Infinity), 16);
    store<i32>(bins + o, 0, 32);
  }
  for (let i = first; i < end; i++) {
    const l = v128.load(boxAt(i));
    const h = v128.load(boxAt(i), 16);
    const b = i32x4.min_s(
      i32x4.splat(BINS - 1),
      i32x4.max_s(i32x4.splat(0), i32x4.trunc_sat_f32x4_s(f32x4.mul(f32x4.sub(f32x4.add(l, h), low), scale))),
    );
    into(bins + <usize>i32x4.extract_lane(b, 0) * BIN, l, h);
    into(bins + <usize>(BINS + i32x4.extract_lane(b, 1)) * BIN, l, h);
    into(bins + <usize>(2 * BINS + i32x4.extract_lane(b, 2)) * BIN, l, h);
  }
  let bestCost: f32 = Infinity;
  let bestAxis: i32 = -1;
  let bestBin: i32 = 0;
  for (let axis = 0; axis < 3; axis++) {
    if (!(lane(size, axis) > 0)) continue;
    const at = bins + <usize>(axis * BINS) * BIN;
    let lo = f32x4.splat(Infinity);
    let hi = f32x4.splat(-Infinity);
    let n: i32 = 0;
    let cost: f32 = 0;
    for (let b = 0; b < BINS - 1; b++) {
      const o = at + <usize>b * BIN;
      const more = load<i32>(o, 32);
      if (more > 0) {
        lo = f32x4.pmin(lo, v128.load(o));
        hi = f32x4.pmax(hi, v128.load(o, 16));
        n += more;
        cost = areaOf(lo, hi) * packets(n);
      }
      store<f32>(sums + (<usize>b << 3), cost);
      store<i32>(sums + (<usize>b << 3), n, 4);
    }
    lo = f32x4.splat(Infinity);
    hi = f32x4.splat(-Infinity);
    n = 0;
    for (let b = BINS - 1; b > 0; b--) {
      const o = at + <usize>b * BIN;
      const more = load<i32>(o, 32);
      // An empty bin gives the same split as the one before.
      if (more == 0) continue;
      lo = f32x4.pmin(lo, v128.load(o));
      hi = f32x4.pmax(hi, v128.load(o, 16));
      n += more;
      if (load<i32>(sums + (<usize>(b - 1) << 3), 4) == 0) break;
      const cost = areaOf(lo, hi) * packets(n) + load<f32>(sums + (<usize>(b - 1) << 3));
      if (cost < bestCost) {
        bestCost = cost;
        bestAxis = axis;
        bestBin = b;
      }
    }
  }
  if (bestAxis >= 0 && !halve) {
    const k = lane(scale, bestAxis);
    const from = lane(low, bestAxis);
    const axis = <usize>bestAxis << 2;
    let leastBelow = f32x4.splat(Infinity);
    let mostBelow = f32x4.splat(-Infinity);
    let leastAbove = leastBelow;
    let mostAbove = mostBelow;
    let i = first;
    let j = end - 1;
    while (i <= j) {
      const o = boxAt(i);
      const l = v128.load(o);
      const h = v128.load(o, 16);
      const m = f32x4.add(l, h);
      if (binOf(load<f32>(o + axis) + load<f32>(o + axis, 16), from, k) < bestBin) {
        leastBelow = f32x4.pmin(leastBelow, m);
        mostBelow = f32x4.pmax(mostBelow, m);
        i++;
      } else {
        leastAbove = f32x4.pmin(leastAbove, m);
        mostAbove = f32x4.pmax(mostAbove, m);
        const other = boxAt(j);
        v128.store(o, v128.load(other));
        v128.store(o, v128.load(other, 16), 16);
        v128.store(other, l);
        v128.store(other, h, 16);
        j--;
      }
    }
    if (i != first && i != end) {
      const at = bins + <usize>(bestAxis * BINS) * BIN;
      lowA = lowB = f32x4.splat(Infinity);
      highA = highB = f32x4.splat(-Infinity);
      for (let b = 0; b < BINS; b++) {
        const o = at + <usize>b * BIN;
        if (b < bestBin) {
          lowA = f32x4.pmin(lowA, v128.load(o));
          highA = f32x4.pmax(highA, v128.load(o, 16));
        } else {
          lowB = f32x4.pmin(lowB, v128.load(o));
          highB = f32x4.pmax(highB, v128.load(o, 16));
        }
      }
      leastA = leastBelow;
      mostA = mostBelow;
      leastB = leastAbove;
      mostB = mostAbove;
      return i;
    }
  }
  // All centroids coincide.
  const half = (first + end) >> 1;
  bounds(first, half);
  lowA = foundLow;
  highA = foundHigh;
  leastA = foundLeast;
  mostA = foundMost;
  bounds(half, end);
  lowB = foundLow;
  highB = foundHigh;
  leastB = foundLeast;
  mostB = foundMost;
  return half;
}

@inline
function into(o: usize, l: v128, h: v128): void {
  v128.store(o, f32x4.pmin(v128.load(o), l));
  v128.store(o, f32x4.pmax(v128.load(o, 16), h), 16);
  store<i32>(o, load<i32>(o, 32) + 1, 32);
}

@inline
function binOf(m: f32, from: f32, scale: f32): i32 {
  return min(BINS - 1, max(0, <i32>((m - from) * scale)));
}

/** Cost of testing this many primitives: they are tested four at a time. */
@inline
function packets(n: i32): f32 {
  return <f32>(ofTriangles ? (n + 3) >> 2 : n);
}
