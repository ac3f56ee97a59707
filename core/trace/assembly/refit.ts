import { areaOf } from './box';
import { WIDE } from './collapse';
import { ownRoom } from './own';
import { across, fitPacket, fittedHigh, fittedLow, PACKET } from './packet';
import { AXIS, CODES, HIGH, LEAF, NODE } from './tree';

/**
 * Trees that are not built: taken over from another scene where a shape stands still, and refitted where its triangles
 * are the same ones in other places. A node has a smaller number than those below it, so that going backwards every box
 * is put together from boxes that are right already.
 */

/** Names what a tree has by other numbers, after it was put elsewhere: `nodeShift` and `packetShift` are added. */
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

/** The lowest x, y, z of the boxes of a node, and then the highest, in fours. */
const boxes = ownRoom(256);

/**
 * Gives the boxes and packets of a tree the places its triangles have now.
 *
 * @param points 3 numbers a vertex, with 4 bytes behind them that may be read
 * @param some a vertex that is somewhere
 * @param whole where the lowest and the highest x, y, z of all are put, 4 numbers each
 * @param room 32 bytes for each node
 * @returns how much more a ray costs than before, by the surfaces of boxes against that of the whole; no number where
 * the whole has none
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
  room: usize,
): f64 {
  const base = nodes + <usize>first * NODE;
  const wholeBefore = <f64>areaOfNode(base);
  let before: f64 = 0;
  let after: f64 = 0;
  // The boxes round nodes that have been done: that of the first at `room`.
  let round = room + (<usize>(end - first) << 5);
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
          const there = room + (<usize>(code / <i32>NODE - first) << 5);
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
  v128.store(whole, v128.load(room));
  v128.store(whole, v128.load(room, 16), 16);
  return after / <f64>areaOf(v128.load(room), v128.load(room, 16)) / (before / wholeBefore);
}

/** The surfaces of the boxes of a node, halved, together; those that are not there have none. */
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

/** Half the surface of the box round those of a node; those that are not there have no numbers, and lose every comparison. */
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
