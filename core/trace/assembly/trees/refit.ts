import { areaOf } from './box';
import { WIDE } from './collapse';
import { allocate } from '../base/per-thread';
import { across, fitPacket, fittedHigh, fittedLow, PACKET } from './packet';
import { AXIS, CODES, HIGH, LEAF, NODE } from './tree';

/**
 * Trees that need not be built: copied from another scene if a mesh stands still, and refitted if its vertices have
 * moved. Children have larger indices than their parents, so that going backwards every box is merged from finished
 * boxes.
 */

/** Relocates a copied tree: adds `nodeShift` and `packetShift` to its indices. */
export function moveTree(nodes: usize, first: i32, end: i32, nodeShift: i32, packetShift: i32): void {
  for (let number = first; number < end; number++) {
    const at = nodes + <usize>number * NODE + CODES;
    for (let k: usize = 0; k < <usize>WIDE; k++) {
      const code = load<i32>(at + (k << 2));
      if (code == -1) continue;
      store<i32>(
        at + (k << 2),
        code < 0 ? LEAF | ((code & 0x7fffffff) + packetShift * <i32>PACKET) : code + nodeShift * <i32>NODE,
      );
    }
  }
}

/** Lowest x, y, z of the boxes of a node, and then the highest, in fours. */
const boxes = allocate(256);

/**
 * Refits boxes and packets of a tree to moved vertices.
 *
 * @param points 3 numbers for each vertex, followed by 4 readable bytes
 * @param some a finite vertex
 * @param whole receives the bounds of all: lowest and highest x, y, z, 4 numbers each
 * @param room scratch space, 32 bytes for each node
 * @returns expected cost of a ray relative to the original tree, by surface areas relative to the whole; NaN if the
 * original had no area
 */
export function refitTree(
  nodes: usize,
  first: i32,
  end: i32,
  packets: usize,
  points: usize,
  triangles: usize,
  some: i32,
  whole: usize,
  atmosphere: usize,
): f64 {
  const base = nodes + <usize>first * NODE;
  const wholeBefore = <f64>areaOfNode(base);
  let before: f64 = 0;
  let after: f64 = 0;
  // Bounds of finished nodes: the first at `room`.
  let round = atmosphere + (<usize>(end - first) << 5);
  for (let number = end - 1; number >= first; number--) {
    const at = nodes + <usize>number * NODE;
    before += <f64>surfaces(at);
    let lowest = f32x4.splat(Infinity);
    let highest = f32x4.splat(-Infinity);
    for (let k: usize = 0; k < <usize>WIDE; k++) {
      const code = load<i32>(at + (k << 2), CODES);
      let low = f32x4.splat(NaN);
      let high = low;
      if (code != -1) {
        if (code < 0) {
          fitPacket(packets + <usize>(code & 0x7fffffff), points, triangles, some);
          low = fittedLow;
          high = fittedHigh;
        } else {
          const there = atmosphere + (<usize>(code / <i32>NODE - first) << 5);
          low = v128.load(there);
          high = v128.load(there, 16);
        }
        lowest = f32x4.pmin(lowest, low);
        highest = f32x4.pmax(highest, high);
      }
      v128.store(boxes + (k << 4), low);
      v128.store(boxes + (k << 4), high, 128);
    }
    for (let half: usize = 0; half < 2; half++) {
      across(boxes + (half << 6), at + (half << 4), AXIS);
      across(boxes + 128 + (half << 6), at + (half << 4) + HIGH, AXIS);
    }
    round -= 32;
    v128.store(round, lowest);
    v128.store(round, highest, 16);
    after += <f64>surfaces(at);
  }
  v128.store(whole, v128.load(atmosphere));
  v128.store(whole, v128.load(atmosphere, 16), 16);
  return after / <f64>areaOf(v128.load(atmosphere), v128.load(atmosphere, 16)) / (before / wholeBefore);
}

/** Summed half surface areas of the boxes of a node; missing boxes have none. */
@inline
function surfaces(at: usize): f32 {
  const all = f32x4.add(fourSurfaces(at), fourSurfaces(at + 16));
  const two = f32x4.add(all, v128.shuffle<f32>(all, all, 2, 3, 0, 1));
  return f32x4.extract_lane(two, 0) + f32x4.extract_lane(two, 1);
}

@inline
function fourSurfaces(at: usize): v128 {
  const x = f32x4.sub(v128.load(at, HIGH), v128.load(at));
  const y = f32x4.sub(v128.load(at + AXIS, HIGH), v128.load(at + AXIS));
  const z = f32x4.sub(v128.load(at + 2 * AXIS, HIGH), v128.load(at + 2 * AXIS));
  const four = f32x4.add(f32x4.add(f32x4.mul(x, y), f32x4.mul(y, z)), f32x4.mul(z, x));
  return v128.and(four, f32x4.eq(four, four));
}

/** Half the surface area of the bounds of a node; missing boxes are NaN and lose every comparison. */
function areaOfNode(at: usize): f32 {
  let low = f32x4.splat(Infinity);
  let high = f32x4.splat(-Infinity);
  for (let k: usize = 0; k < 32; k += 4) {
    const o = at + k;
    low = f32x4.pmin(low, f32x4(load<f32>(o), load<f32>(o + AXIS), load<f32>(o + 2 * AXIS), 0));
    const h = o + HIGH;
    high = f32x4.pmax(high, f32x4(load<f32>(h), load<f32>(h + AXIS), load<f32>(h + 2 * AXIS), 0));
  }
  return areaOf(low, high);
}
