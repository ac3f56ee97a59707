/**
 * Nodes of a binary tree, 64 bytes: lowest x, y, z of the box and the first child; highest x, y, z and the second
 * child; then the costs that collapse.ts keeps. A leaf has −1 − the index of its first primitive in place of the first
 * child, and the number of its primitives in place of the second.
 */
export const BINARY: usize = 64;

@inline
export function setParts(node: usize, first: usize, second: usize): void {
  store<u32>(node, <u32>first, 12);
  store<u32>(node, <u32>second, 28);
}
@inline
export function setLeaf(node: usize, first: i32, count: i32): void {
  store<i32>(node, -1 - first, 12);
  store<i32>(node, count, 28);
}

@inline
export function isLeaf(node: usize): bool {
  return load<i32>(node, 12) < 0;
}
@inline
export function firstPart(node: usize): usize {
  return load<u32>(node, 12);
}
@inline
export function secondPart(node: usize): usize {
  return load<u32>(node, 28);
}

/** Index of the first primitive of a leaf, and how many it has. */
@inline
export function firstOf(leaf: usize): i32 {
  return -1 - load<i32>(leaf, 12);
}
@inline
export function countOf(leaf: usize): i32 {
  return load<i32>(leaf, 28);
}
