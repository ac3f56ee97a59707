import { areaOf } from './box';
import { ownRoom } from './own';
import { across, fitPacket, fittedHigh, fittedLow, PACKET } from './packet';
import { CODES, LEAF, NODE } from './tree';

/**
 * Trees that are not built: taken over from another scene where a shape stands still, and refitted where its triangles
 * are the same ones in other places. A node has a smaller number than those below it, so that going backwards every box
 * is put together from boxes that are right already.
 */

/** Names what a tree has by other numbers, after it was put elsewhere: `nodeShift` and `packetShift` are added. */
export function moveTree(nodes: usize, first: i32, end: i32, nodeShift: i32, packetShift: i32): void {
  for (let number = first; number < end; number++) {
    const at = nodes + <usize>number * NODE + CODES;
    for (let k: usize = 0; k < 4; k++) {
      const code = load<i32>(at + (k << 2));
      if (code == -1) continue;
      store<i32>(
        at + (k << 2),
        code < 0 ? LEAF | ((code & 0x7fffffff) + packetShift * <i32>PACKET) : code + nodeShift * <i32>NODE,
      );
    }
  }
}

let low: v128 = f32x4.splat(0);
let high: v128 = f32x4.splat(0);
/** The lowest x, y, z of the four boxes of a node, and then the highest. */
const boxes = ownRoom(128);

/**
 * Gives the boxes and packets of a tree the places its triangles have now.
 *
 * @param points 3 numbers a vertex, with 4 bytes behind them that may be read
 * @param some a vertex that is somewhere
 * @param whole where the lowest and the highest x, y, z of all are put, 4 numbers each
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
): f64 {
  boxOfNode(nodes + <usize>first * NODE);
  const wholeBefore = <f64>areaOf(low, high);
  let before: f64 = 0;
  let after: f64 = 0;
  for (let number = end - 1; number >= first; number--) {
    const at = nodes + <usize>number * NODE;
    before += <f64>surfaces(at);
    for (let k: usize = 0; k < 4; k++) {
      const code = load<i32>(at + (k << 2), CODES);
      if (code == -1) {
        low = high = f32x4.splat(NaN);
      } else if (code < 0) {
        fitPacket(packets + <usize>(code & 0x7fffffff), points, triangles, some);
        low = fittedLow;
        high = fittedHigh;
      } else boxOfNode(nodes + <usize>code);
      v128.store(boxes + (k << 4), low);
      v128.store(boxes + (k << 4), high, 64);
    }
    across(boxes, at);
    across(boxes + 64, at + 48);
    after += <f64>surfaces(at);
  }
  boxOfNode(nodes + <usize>first * NODE);
  v128.store(whole, low);
  v128.store(whole, high, 16);
  return after / <f64>areaOf(low, high) / (before / wholeBefore);
}

/** The surfaces of the boxes of a node, halved, together; those that are not there have none. */
@inline
function surfaces(at: usize): f32 {
  const x = f32x4.sub(v128.load(at, 48), v128.load(at));
  const y = f32x4.sub(v128.load(at, 64), v128.load(at, 16));
  const z = f32x4.sub(v128.load(at, 80), v128.load(at, 32));
  const four = f32x4.add(f32x4.add(f32x4.mul(x, y), f32x4.mul(y, z)), f32x4.mul(z, x));
  const there = v128.and(four, f32x4.eq(four, four));
  const two = f32x4.add(there, v128.shuffle<f32>(there, there, 2, 3, 0, 1));
  return f32x4.extract_lane(two, 0) + f32x4.extract_lane(two, 1);
}

/** The box round the four of a node; those that are not there have no numbers, and lose every comparison. */
function boxOfNode(at: usize): void {
  const least = f32x4.splat(Infinity);
  const most = f32x4.splat(-Infinity);
  low = f32x4(
    lowest(f32x4.pmin(least, v128.load(at))),
    lowest(f32x4.pmin(least, v128.load(at, 16))),
    lowest(f32x4.pmin(least, v128.load(at, 32))),
    0,
  );
  high = f32x4(
    highest(f32x4.pmax(most, v128.load(at, 48))),
    highest(f32x4.pmax(most, v128.load(at, 64))),
    highest(f32x4.pmax(most, v128.load(at, 80))),
    0,
  );
}

@inline
function lowest(v: v128): f32 {
  const half = f32x4.pmin(v, v128.shuffle<f32>(v, v, 2, 3, 0, 1));
  return f32x4.extract_lane(f32x4.pmin(half, v128.shuffle<f32>(half, half, 1, 0, 3, 2)), 0);
}
@inline
function highest(v: v128): f32 {
  const half = f32x4.pmax(v, v128.shuffle<f32>(v, v, 2, 3, 0, 1));
  return f32x4.extract_lane(f32x4.pmax(half, v128.shuffle<f32>(half, half, 1, 0, 3, 2)), 0);
}
