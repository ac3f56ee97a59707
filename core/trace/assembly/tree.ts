/**
 * A tree of boxes, four to a node, over triangles or over copies: built by the surface-area heuristic with bins
 * (I. Wald, 2007), a node's largest parts being split until there are four.
 *
 * Node, 112 bytes: lowest x, y, z and highest x, y, z of four boxes, four numbers each; then four codes: −1 for
 * none, the number of a node from 0, or with the highest bit set a leaf. Boxes of what is to be built are 32 bytes:
 * lowest x, y, z and a free number, highest x, y, z and a free number.
 */
export const NODE: usize = 112;
const CODES: usize = 96;
const LEAF: i32 = 0x80000000;
/** Things a leaf has at most. */
export const MOST_LEAF: i32 = 4;
const BINS: i32 = 12;

const bins = memory.data(3 * 12 * 48, 16);
const sums = memory.data(12 * 8, 16);

let boxes: usize = 0;
let order: usize = 0;
let nodes: usize = 0;
let nodeCount: i32 = 0;
let leaves: usize = 0;
let leafCount: i32 = 0;
let ofTriangles: bool = false;
/** Where triangles have their corners, three vectors of four numbers each. */
let corners: usize = 0;

/** A packet of four triangles: a corner and two edges, x, y, z of each, four numbers each; then which ones they are. */
export const PACKET: usize = 160;

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
  corners = cornersAt;
  for (let i = 0; i < count; i++) store<i32>(list + (<usize>i << 2), i);
  buildNode(0, count);
  return <u64>nodeCount | (<u64>leafCount << 32);
}

@inline
function lowOf(i: i32): v128 {
  return v128.load(boxes + (<usize>load<u32>(order + (<usize>i << 2)) << 5));
}
@inline
function highOf(i: i32): v128 {
  return v128.load(boxes + (<usize>load<u32>(order + (<usize>i << 2)) << 5), 16);
}

@inline
function areaOf(low: v128, high: v128): f32 {
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
    low = f32x4.min(low, lowOf(i));
    high = f32x4.max(high, highOf(i));
  }
  foundLow = low;
  foundHigh = high;
}

@inline
function lane(v: v128, k: i32): f32 {
  return k == 0 ? f32x4.extract_lane(v, 0) : k == 1 ? f32x4.extract_lane(v, 1) : f32x4.extract_lane(v, 2);
}

/** Twice the middle of a thing, along an axis. */
@inline
function middle(i: i32, axis: i32): f32 {
  const at = boxes + (<usize>load<u32>(order + (<usize>i << 2)) << 5) + (<usize>axis << 2);
  return load<f32>(at) + load<f32>(at, 16);
}

/** Splits a stretch of the list in two, and says where; never at an end. */
function split(first: i32, end: i32): i32 {
  let low = f32x4.splat(Infinity);
  let high = f32x4.splat(-Infinity);
  for (let i = first; i < end; i++) {
    const m = f32x4.add(lowOf(i), highOf(i));
    low = f32x4.min(low, m);
    high = f32x4.max(high, m);
  }
  const size = f32x4.sub(high, low);
  let bestCost: f32 = Infinity;
  let bestAxis: i32 = -1;
  let bestBin: i32 = 0;
  for (let axis = 0; axis < 3; axis++) {
    const extent = lane(size, axis);
    if (!(extent > 0)) continue;
    const scale = (<f32>BINS * 0.99999) / extent;
    const from = lane(low, axis);
    const at = bins + <usize>axis * 12 * 48;
    for (let b = 0; b < BINS; b++) {
      v128.store(at + <usize>b * 48, f32x4.splat(Infinity));
      v128.store(at + <usize>b * 48, f32x4.splat(-Infinity), 16);
      store<i32>(at + <usize>b * 48, 0, 32);
    }
    for (let i = first; i < end; i++) {
      const o = at + <usize>binOf(middle(i, axis), from, scale) * 48;
      v128.store(o, f32x4.min(v128.load(o), lowOf(i)));
      v128.store(o, f32x4.max(v128.load(o, 16), highOf(i)), 16);
      store<i32>(o, load<i32>(o, 32) + 1, 32);
    }
    let lo = f32x4.splat(Infinity);
    let hi = f32x4.splat(-Infinity);
    let n: i32 = 0;
    for (let b = 0; b < BINS - 1; b++) {
      const o = at + <usize>b * 48;
      lo = f32x4.min(lo, v128.load(o));
      hi = f32x4.max(hi, v128.load(o, 16));
      n += load<i32>(o, 32);
      store<f32>(sums + (<usize>b << 3), n == 0 ? 0 : areaOf(lo, hi) * packets(n));
      store<i32>(sums + (<usize>b << 3), n, 4);
    }
    lo = f32x4.splat(Infinity);
    hi = f32x4.splat(-Infinity);
    n = 0;
    for (let b = BINS - 1; b > 0; b--) {
      const o = at + <usize>b * 48;
      lo = f32x4.min(lo, v128.load(o));
      hi = f32x4.max(hi, v128.load(o, 16));
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
  // All in one place.
  if (bestAxis < 0) return (first + end) >> 1;
  const scale = (<f32>BINS * 0.99999) / lane(size, bestAxis);
  const from = lane(low, bestAxis);
  let i = first;
  let j = end - 1;
  while (i <= j) {
    if (binOf(middle(i, bestAxis), from, scale) < bestBin) i++;
    else {
      const other = load<i32>(order + (<usize>j << 2));
      store<i32>(order + (<usize>j << 2), load<i32>(order + (<usize>i << 2)));
      store<i32>(order + (<usize>i << 2), other);
      j--;
    }
  }
  return i == first || i == end ? (first + end) >> 1 : i;
}

@inline
function binOf(m: f32, from: f32, scale: f32): i32 {
  return min(BINS - 1, max(0, <i32>((m - from) * scale)));
}

/** What so many things cost to be looked at: they are looked at by four. */
@inline
function packets(n: i32): f32 {
  return <f32>((n + 3) >> 2);
}

function buildNode(first: i32, end: i32): i32 {
  const number = nodeCount++;
  // Up to four stretches of the list.
  let a0 = first;
  let a1 = end;
  let a2 = end;
  let a3 = end;
  let a4 = end;
  let parts = 1;
  while (parts < 4) {
    // The one that rays meet most often is split.
    let best: i32 = -1;
    let most: f32 = -1;
    for (let k = 0; k < parts; k++) {
      const f = k == 0 ? a0 : k == 1 ? a1 : a2;
      const e = k == 0 ? a1 : k == 1 ? a2 : a3;
      if (e - f <= MOST_LEAF) continue;
      bounds(f, e);
      const weight = areaOf(foundLow, foundHigh) * <f32>(e - f);
      if (weight > most) {
        most = weight;
        best = k;
      }
    }
    if (best < 0) break;
    const f = best == 0 ? a0 : best == 1 ? a1 : a2;
    const e = best == 0 ? a1 : best == 1 ? a2 : a3;
    const m = split(f, e);
    if (best == 0) {
      a4 = a3;
      a3 = a2;
      a2 = a1;
      a1 = m;
    } else if (best == 1) {
      a4 = a3;
      a3 = a2;
      a2 = m;
    } else {
      a4 = a3;
      a3 = m;
    }
    parts++;
  }
  const at = nodes + <usize>number * NODE;
  for (let k = 0; k < 4; k++) {
    const f = k == 0 ? a0 : k == 1 ? a1 : k == 2 ? a2 : a3;
    const e = k == 0 ? a1 : k == 1 ? a2 : k == 2 ? a3 : a4;
    const o = at + (<usize>k << 2);
    // What is not there has no number for a box, and no ray meets it.
    const there = k < parts && e > f;
    bounds(there ? f : 0, there ? e : 0);
    for (let axis = 0; axis < 3; axis++) {
      store<f32>(o + (<usize>axis << 4), there ? lane(foundLow, axis) : NaN);
      store<f32>(o + (<usize>axis << 4), there ? lane(foundHigh, axis) : NaN, 48);
    }
    let code: i32 = -1;
    if (there) code = e - f <= MOST_LEAF ? leafOf(f, e) : buildNode(f, e);
    store<i32>(o, code, CODES);
  }
  return number;
}

function leafOf(first: i32, end: i32): i32 {
  // Copies are looked up in the list.
  if (!ofTriangles) return LEAF | (first << 3) | (end - first);
  const number = leafCount++;
  const at = leaves + <usize>number * PACKET;
  for (let k = 0; k < 4; k++) {
    const o = at + (<usize>k << 2);
    // What is left free is a triangle that nothing meets.
    const there = first + k < end;
    const i = there ? load<i32>(order + (<usize>(first + k) << 2)) : 0;
    const a = v128.load(corners + <usize>i * 48);
    const zero = f32x4.splat(0);
    const e1 = there ? f32x4.sub(v128.load(corners + <usize>i * 48, 16), a) : zero;
    const e2 = there ? f32x4.sub(v128.load(corners + <usize>i * 48, 32), a) : zero;
    for (let axis = 0; axis < 3; axis++) {
      store<f32>(o + (<usize>axis << 4), lane(a, axis));
      store<f32>(o + (<usize>axis << 4), lane(e1, axis), 48);
      store<f32>(o + (<usize>axis << 4), lane(e2, axis), 96);
    }
    store<i32>(o, there ? i : -1, 144);
  }
  return LEAF | number;
}
