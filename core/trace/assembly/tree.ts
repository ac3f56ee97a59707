import { countOf, firstOf, isLeaf } from './binary';
import { buildBinary } from './binned';
import { numberOf } from './box';
import { boxesOf, WIDE } from './collapse';
import { ownRoom } from './own';
import { fillPacket, PACKET, WHICH } from './packet';

/**
 * A tree of boxes, eight to a node, over triangles or over copies; made from one of two to a node (binned.ts, collapse.ts).
 *
 * Node, 224 bytes: lowest x of eight boxes, lowest y, lowest z, highest x, y, z, eight numbers each; then eight codes: −1
 * for none, how many bytes a node is from the first of all, or with the highest bit set a leaf: how many bytes a packet of
 * triangles is from the first, or the number of a copy.
 */
export const NODE: usize = 224;
/** Where the numbers of an axis begin after those of the one before, where the highest begin, and where codes do. */
export const AXIS: usize = 32;
export const HIGH: usize = 96;
export const CODES: usize = 192;
export const LEAF: i32 = 0x80000000;

let boxes: usize = 0;
let nodes: usize = 0;
let nodeCount: i32 = 0;
let leaves: usize = 0;
let leafCount: i32 = 0;
/** Where triangles have their corners, three vectors of four numbers each. */
let corners: usize = 0;

/** Boxes of nodes that are being made, for each depth. */
const parts = ownRoom(128 * 32);

/**
 * @param at of the boxes, `count` of them, which are put in another order; those of triangles know which they are of
 * @param node where nodes are put, the first as number `firstNode`
 * @param leaf where packets of triangles are put, the first as number `firstLeaf`; 0 for copies
 * @param room for the binary tree: 128 bytes for each box
 * @returns how many nodes and, in the upper half, packets there are now
 */
export function buildTree(
  at: usize,
  count: i32,
  node: usize,
  firstNode: i32,
  leaf: usize,
  firstLeaf: i32,
  cornersAt: usize,
  room: usize,
): u64 {
  boxes = at;
  nodes = node;
  nodeCount = firstNode;
  leaves = leaf;
  leafCount = firstLeaf;
  corners = cornersAt;
  buildNode(buildBinary(at, count, leaf != 0, room), parts);
  return <u64>nodeCount | (<u64>leafCount << 32);
}

/**
 * Makes a node, and those below it after it.
 *
 * @param binary what of the binary tree it is instead of
 * @param at where there is room for which boxes it has
 * @returns its code
 */
function buildNode(binary: usize, at: usize): i32 {
  const code = nodeCount++ * <i32>NODE;
  const node = nodes + <usize>code;
  const count = boxesOf(binary, at);
  for (let k: usize = 0; k < <usize>WIDE; k++) {
    const there = k < <usize>count;
    const part: usize = there ? load<u32>(at + (k << 2)) : 0;
    // What is not there has no number for a box, and no ray meets it.
    for (let axis: usize = 0; axis < 3; axis++) {
      store<f32>(node + AXIS * axis + (k << 2), there ? load<f32>(part + (axis << 2)) : NaN);
      store<f32>(node + AXIS * axis + (k << 2), there ? load<f32>(part + (axis << 2), 16) : NaN, HIGH);
    }
    store<i32>(node + (k << 2), there && isLeaf(part) ? leafOf(part) : -1, CODES);
  }
  for (let k: usize = 0; k < <usize>count; k++) {
    const part: usize = load<u32>(at + (k << 2));
    if (!isLeaf(part)) store<i32>(node + (k << 2), buildNode(part, at + 32), CODES);
  }
  return code;
}

function leafOf(binary: usize): i32 {
  const first = firstOf(binary);
  const count = countOf(binary);
  if (leaves == 0) return LEAF | numberOf(boxes + (<usize>first << 5));
  const code = leafCount++ * <i32>PACKET;
  const at = leaves + <usize>code;
  // What is left free is a triangle that nothing meets.
  for (let k = 0; k < 4; k++)
    store<i32>(at + (<usize>k << 2), k < count ? numberOf(boxes + (<usize>(first + k) << 5)) : -1, WHICH);
  fillPacket(at, corners);
  return LEAF | code;
}
