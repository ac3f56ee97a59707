import { countOf, firstOf, isLeaf } from './binary';
import { buildBinary } from './binned';
import { numberOf } from './box';
import { boxesOf, WIDE } from './collapse';
import { allocate } from '../base/per-thread';
import { fillPacket, PACKET, WHICH } from './packet';

/**
 * An eight-wide bounding volume hierarchy over triangles or instances, collapsed from a binary one (binned.ts,
 * collapse.ts).
 *
 * Node, 224 bytes: lowest x of eight boxes, lowest y, lowest z, highest x, y, z, eight numbers each; then eight codes:
 * −1 for none, the byte offset of a child node, or with the highest bit set a leaf: the byte offset of a packet of
 * triangles, or the index of an instance.
 */
export const NODE: usize = 224;
/** Stride between axes, offset of the highest numbers, and offset of the codes. */
export const AXIS: usize = 32;
export const HIGH: usize = 96;
export const CODES: usize = 192;
export const LEAF: i32 = 0x80000000;

let boxes: usize = 0;
let nodes: usize = 0;
let nodeCount: i32 = 0;
let leaves: usize = 0;
let leafCount: i32 = 0;
/** Corners of triangles, three vectors of four numbers each. */
let corners: usize = 0;

/** Boxes of nodes under construction, for each depth. */
const parts = allocate(128 * 32);

/**
 * @param at address of the boxes, `count` of them, which are reordered; boxes of triangles hold the triangle's index
 * @param node base address of nodes, the first as number `firstNode`
 * @param leaf base address of packets, the first as number `firstLeaf`; 0 for instances
 * @param room scratch space for the binary tree: 128 bytes for each box
 * @returns number of nodes and, in the upper half, of packets so far
 */
export function buildTree(
  at: usize,
  count: i32,
  node: usize,
  firstNode: i32,
  leaf: usize,
  firstLeaf: i32,
  cornersAt: usize,
  atmosphere: usize,
): u64 {
  boxes = at;
  nodes = node;
  nodeCount = firstNode;
  leaves = leaf;
  leafCount = firstLeaf;
  corners = cornersAt;
  buildNode(buildBinary(at, count, leaf != 0, atmosphere), parts);
  return <u64>nodeCount | (<u64>leafCount << 32);
}

/**
 * Makes a node, and after it its children.
 *
 * @param binary the binary node it replaces
 * @param at scratch space for the addresses of its boxes
 * @returns its code
 */
function buildNode(binary: usize, at: usize): i32 {
  const code = nodeCount++ * <i32>NODE;
  const node = nodes + <usize>code;
  const count = boxesOf(binary, at);
  for (let k: usize = 0; k < <usize>WIDE; k++) {
    const there = k < <usize>count;
    const part: usize = there ? load<u32>(at + (k << 2)) : 0;
    // A missing child has a NaN box, which no ray hits.
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
  // Free slots hold degenerate triangles that are never hit.
  for (let k = 0; k < 4; k++)
    store<i32>(at + (<usize>k << 2), k < count ? numberOf(boxes + (<usize>(first + k) << 5)) : -1, WHICH);
  fillPacket(at, corners);
  return LEAF | code;
}
