import { ownRoom } from './own';
import { fillPacket, lane, PACKET, WHICH } from './packet';
import { triangleIn } from './pieces';

/**
 * A tree of boxes, four to a node, over triangles or over copies: built by the surface-area heuristic with bins
 * (I. Wald, 2007), a node's largest parts being split until there are four.
 *
 * Node, 112 bytes: lowest x, y, z and highest x, y, z of four boxes, four numbers each; then four codes: −1 for
 * none, the number of a node from 0, or with the highest bit set a leaf. Boxes of what is to be built are 32 bytes:
 * lowest x, y, z and, of triangles, which it is of (pieces.ts), highest x, y, z and a free number.
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
let order: usize = 0;
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
 * @param at of the boxes, `count` of them
 * @param list of as many whole numbers, which are put in the order of the leaves
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
  order = list;
  nodes = node;
  nodeCount = firstNode;
  leaves = leaf;
  leafCount = firstLeaf;
  ofTriangles = leaf != 0;
  mostInLeaf = ofTriangles ? MOST_LEAF : 1;
  corners = cornersAt;
  for (let i = 0; i < count; i++) store<i32>(list + (<usize>i << 2), i);
  bounds(0, count);
  buildNode(0, count, foundLow, foundHigh, 0);
  return <u64>nodeCount | (<u64>leafCount << 32);
}

/** Which thing stands at a place of the list. */
@inline
function thing(i: i32): i32 {
  return load<i32>(order + (<usize>i << 2));
}
@inline
function lowOf(i: i32): v128 {
  return v128.load(boxes + (<usize>thing(i) << 5));
}
@inline
function highOf(i: i32): v128 {
  return v128.load(boxes + (<usize>thing(i) << 5), 16);
}

/** Half the surface of a box. */
@inline
export function areaOf(low: v128, high: v128): f32 {
  const d = f32x4.sub(high, low);
  const x = f32x4.extract_lane(d, 0);
  const y = f32x4.extract_lane(d, 1);
  const z = f32x4.extract_lane(d, 2);
  return x < 0 ? 0 : x * y + y * z + z * x;
}

let foundLow: v128 = f32x4.splat(0);
let foundHigh: v128 = f32x4.splat(0);

function bounds(first: i32, end: i32): void {
  let low = f32x4.splat(Infinity);
  let high = f32x4.splat(-Infinity);
  for (let i = first; i < end; i++) {
    low = f32x4.pmin(low, lowOf(i));
    high = f32x4.pmax(high, highOf(i));
  }
  foundLow = low;
  foundHigh = high;
}

/** Twice the middle of a thing, along an axis. */
@inline
function middle(i: i32, axis: i32): f32 {
  const at = boxes + (<usize>thing(i) << 5) + (<usize>axis << 2);
  return load<f32>(at) + load<f32>(at, 16);
}

/** So deep that from here on stretches are halved, which ends soon, whatever lies in them. */
const HALVES: usize = 40;
let halves: bool = false;

/** Boxes of both parts of what was split. */
let lowA: v128 = f32x4.splat(0);
let highA: v128 = f32x4.splat(0);
let lowB: v128 = f32x4.splat(0);
let highB: v128 = f32x4.splat(0);

/** Splits a stretch of the list in two, and says where; never at an end. */
function split(first: i32, end: i32): i32 {
  let low = f32x4.splat(Infinity);
  let high = f32x4.splat(-Infinity);
  for (let i = first; i < end; i++) {
    const m = f32x4.add(lowOf(i), highOf(i));
    low = f32x4.pmin(low, m);
    high = f32x4.pmax(high, m);
  }
  const size = f32x4.sub(high, low);
  // All in one place along an axis: all in its first bin.
  const scale = f32x4.div(f32x4.splat(<f32>BINS * 0.99999), f32x4.pmax(size, f32x4.splat(1e-30)));
  for (let o: usize = 0; o < 3 * BINS * BIN; o += BIN) {
    v128.store(bins + o, f32x4.splat(Infinity));
    v128.store(bins + o, f32x4.splat(-Infinity), 16);
    store<i32>(bins + o, 0, 32);
  }
  for (let i = first; i < end; i++) {
    const l = lowOf(i);
    const h = highOf(i);
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
    for (let b = 0; b < BINS - 1; b++) {
      const o = at + <usize>b * BIN;
      lo = f32x4.pmin(lo, v128.load(o));
      hi = f32x4.pmax(hi, v128.load(o, 16));
      n += load<i32>(o, 32);
      store<f32>(sums + (<usize>b << 3), n == 0 ? 0 : areaOf(lo, hi) * packets(n));
      store<i32>(sums + (<usize>b << 3), n, 4);
    }
    lo = f32x4.splat(Infinity);
    hi = f32x4.splat(-Infinity);
    n = 0;
    for (let b = BINS - 1; b > 0; b--) {
      const o = at + <usize>b * BIN;
      lo = f32x4.pmin(lo, v128.load(o));
      hi = f32x4.pmax(hi, v128.load(o, 16));
      n += load<i32>(o, 32);
      if (n == 0 || load<i32>(sums + (<usize>(b - 1) << 3), 4) == 0) continue;
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
    let i = first;
    let j = end - 1;
    while (i <= j) {
      if (binOf(middle(i, bestAxis), from, k) < bestBin) i++;
      else {
        const other = load<i32>(order + (<usize>j << 2));
        store<i32>(order + (<usize>j << 2), load<i32>(order + (<usize>i << 2)));
        store<i32>(order + (<usize>i << 2), other);
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
      return i;
    }
  }
  // All in one place.
  const half = (first + end) >> 1;
  bounds(first, half);
  lowA = foundLow;
  highA = foundHigh;
  bounds(half, end);
  lowB = foundLow;
  highB = foundHigh;
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

/** Stretches of the list that become the four parts of a node, for each depth: where from, where to, and their box. */
const PART: usize = 48;
const parts = ownRoom(80 * 4 * 48);

function setPart(at: usize, first: i32, end: i32, low: v128, high: v128): void {
  v128.store(at, low);
  v128.store(at, high, 16);
  store<i32>(at, first, 32);
  store<i32>(at, end, 36);
  // The one that rays meet most often is split first; what fits in a leaf is not.
  store<f32>(at, end - first <= mostInLeaf ? -1 : areaOf(low, high) * <f32>(end - first), 40);
}

function buildNode(first: i32, end: i32, low: v128, high: v128, depth: usize): i32 {
  const number = nodeCount++;
  const at = parts + depth * 4 * PART;
  setPart(at, first, end, low, high);
  let count: usize = 1;
  halves = depth >= HALVES;
  while (count < 4) {
    let best: usize = 0;
    let most: f32 = -1;
    for (let k: usize = 0; k < count; k++) {
      const weight = load<f32>(at + k * PART, 40);
      if (weight > most) {
        most = weight;
        best = k;
      }
    }
    if (most < 0) break;
    const o = at + best * PART;
    const f = load<i32>(o, 32);
    const e = load<i32>(o, 36);
    const m = split(f, e);
    setPart(o, f, m, lowA, highA);
    setPart(at + count * PART, m, e, lowB, highB);
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
      const f = load<i32>(part, 32);
      const e = load<i32>(part, 36);
      code = e - f <= mostInLeaf ? leafOf(f, e) : buildNode(f, e, l, h, depth + 1);
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
  for (let k = 0; k < 4; k++) store<i32>(at + (<usize>k << 2), first + k < end ? triangleIn(boxes + (<usize>thing(first + k) << 5)) : -1, WHICH);
  fillPacket(at, corners);
  return LEAF | number;
}
