import { areaOf, numberOf, numberThing } from './box';
import { ownRoom } from './own';
import { fillPacket, lane, PACKET, WHICH } from './packet';

/**
 * A tree of boxes, four to a node, over triangles or over copies: built by the surface-area heuristic with bins
 * (I. Wald, 2007), a node's largest parts being split until there are four.
 *
 * Node, 112 bytes: lowest x, y, z and highest x, y, z of four boxes, four numbers each; then four codes: −1 for
 * none, how many bytes a node is from the first of all, or with the highest bit set a leaf. Boxes of what is to be built are 32 bytes:
 * lowest x, y, z and which thing it is of (box.ts), highest x, y, z and a free number. They are put in the order of
 * the leaves themselves, so that what lies together is read together.
 */
export const NODE: usize = 112;
export const CODES: usize = 96;
export const LEAF: i32 = 0x80000000;
/** Things a leaf has at most. */
const MOST_LEAF: i32 = 4;
const BINS: i32 = 12;
/** Bytes of a bin: its box, and how many things are in it. */
const BIN: usize = 48;

const bins = ownRoom(3 * 12 * 48);
const sums = ownRoom(12 * 8);

let boxes: usize = 0;
let nodes: usize = 0;
let nodeCount: i32 = 0;
let leaves: usize = 0;
let leafCount: i32 = 0;
let ofTriangles: bool = false;
/** Four triangles are looked at at once; what stands there is costly to look into, and has a box of its own. */
let mostInLeaf: i32 = MOST_LEAF;
/** Where triangles have their corners, three vectors of four numbers each. */
let corners: usize = 0;

/**
 * @param at of the boxes, `count` of them, which are put in another order; those of triangles know which they are of
 * @param list where copies are put in the order of the leaves, as many whole numbers
 * @param node where nodes are put, the first as number `firstNode`
 * @param leaf where packets of triangles are put, the first as number `firstLeaf`; 0 for copies
 * @returns how many nodes and, in the upper half, packets there are now
 */
export function buildTree(
  at: usize,
  count: i32,
  list: usize,
  node: usize,
  firstNode: i32,
  leaf: usize,
  firstLeaf: i32,
  cornersAt: usize,
): u64 {
  boxes = at;
  nodes = node;
  nodeCount = firstNode;
  leaves = leaf;
  leafCount = firstLeaf;
  ofTriangles = leaf != 0;
  mostInLeaf = ofTriangles ? MOST_LEAF : 1;
  corners = cornersAt;
  if (!ofTriangles) for (let i = 0; i < count; i++) numberThing(boxAt(i), i);
  bounds(0, count);
  buildNode(0, count, foundLow, foundHigh, foundLeast, foundMost, 0);
  if (!ofTriangles) for (let i = 0; i < count; i++) store<i32>(list + (<usize>i << 2), numberOf(boxAt(i)));
  return <u64>nodeCount | (<u64>leafCount << 32);
}

@inline
function boxAt(i: i32): usize {
  return boxes + (<usize>i << 5);
}

/** The box of some things, and that of their middles, twice as far from the origin. */
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

/** So deep that from here on stretches are halved, which ends soon, whatever lies in them. */
const HALVES: usize = 40;
let halves: bool = false;

/** Boxes of both parts of what was split, and of the middles in them. */
let lowA: v128 = f32x4.splat(0);
let highA: v128 = f32x4.splat(0);
let leastA: v128 = f32x4.splat(0);
let mostA: v128 = f32x4.splat(0);
let lowB: v128 = f32x4.splat(0);
let highB: v128 = f32x4.splat(0);
let leastB: v128 = f32x4.splat(0);
let mostB: v128 = f32x4.splat(0);

/**
 * Splits a stretch of boxes in two, and says where; never at an end.
 *
 * @param low of the middles in it, twice as far from the origin
 */
function split(first: i32, end: i32, low: v128, high: v128): i32 {
  const size = f32x4.sub(high, low);
  // All in one place along an axis: all in its first bin.
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
      // With an empty bin the parts are those that were looked at before.
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
  if (bestAxis >= 0 && !halves) {
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
  // All in one place.
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

/** What so many things cost to be looked at: they are looked at by four. */
@inline
function packets(n: i32): f32 {
  return <f32>(ofTriangles ? (n + 3) >> 2 : n);
}

/**
 * Stretches of boxes that become the four parts of a node, for each depth: their box and that of their middles, where
 * from, where to, and how much splitting it is worth.
 */
const PART: usize = 80;
const parts = ownRoom(80 * 4 * 80);

function setPart(at: usize, first: i32, end: i32, low: v128, high: v128, least: v128, most: v128): void {
  v128.store(at, low);
  v128.store(at, high, 16);
  v128.store(at, least, 32);
  v128.store(at, most, 48);
  store<i32>(at, first, 64);
  store<i32>(at, end, 68);
  // The one that rays meet most often is split first; what fits in a leaf is not.
  store<f32>(at, end - first <= mostInLeaf ? -1 : areaOf(low, high) * <f32>(end - first), 72);
}

function buildNode(first: i32, end: i32, low: v128, high: v128, least: v128, most: v128, depth: usize): i32 {
  const number = nodeCount++;
  const at = parts + depth * 4 * PART;
  setPart(at, first, end, low, high, least, most);
  let count: usize = 1;
  halves = depth >= HALVES;
  while (count < 4) {
    let best: usize = 0;
    let worth: f32 = -1;
    for (let k: usize = 0; k < count; k++) {
      const weight = load<f32>(at + k * PART, 72);
      if (weight > worth) {
        worth = weight;
        best = k;
      }
    }
    if (worth < 0) break;
    const o = at + best * PART;
    const f = load<i32>(o, 64);
    const e = load<i32>(o, 68);
    const m = split(f, e, v128.load(o, 32), v128.load(o, 48));
    setPart(o, f, m, lowA, highA, leastA, mostA);
    setPart(at + count * PART, m, e, lowB, highB, leastB, mostB);
    count++;
  }
  const node = nodes + <usize>number * NODE;
  for (let k: usize = 0; k < 4; k++) {
    const o = node + (k << 2);
    const part = at + k * PART;
    // What is not there has no number for a box, and no ray meets it.
    const there = k < count;
    const l = v128.load(part);
    const h = v128.load(part, 16);
    for (let axis = 0; axis < 3; axis++) {
      store<f32>(o + (<usize>axis << 4), there ? lane(l, axis) : NaN);
      store<f32>(o + (<usize>axis << 4), there ? lane(h, axis) : NaN, 48);
    }
    let code: i32 = -1;
    if (there) {
      const f = load<i32>(part, 64);
      const e = load<i32>(part, 68);
      if (e - f <= mostInLeaf) code = leafOf(f, e);
      else code = buildNode(f, e, l, h, v128.load(part, 32), v128.load(part, 48), depth + 1) * <i32>NODE;
    }
    store<i32>(o, code, CODES);
  }
  return number;
}

function leafOf(first: i32, end: i32): i32 {
  // Copies are looked up in the list.
  if (!ofTriangles) return LEAF | (first << 3) | (end - first);
  const number = leafCount++;
  const at = leaves + <usize>number * PACKET;
  // What is left free is a triangle that nothing meets.
  for (let k = 0; k < 4; k++) store<i32>(at + (<usize>k << 2), first + k < end ? numberOf(boxAt(first + k)) : -1, WHICH);
  fillPacket(at, corners);
  return LEAF | (number * <i32>PACKET);
}
