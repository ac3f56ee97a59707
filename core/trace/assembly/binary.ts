/**
 * Nodes of a tree with two boxes to a node, 64 bytes: lowest x, y, z of its box and where its first part is; highest x, y, z
 * and where its second part is; then what collapse.ts knows of it. A leaf has −1 − the number of its first thing instead of
 * the first part, and how many there are instead of the second.
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

/** The number of the first thing in a leaf, and how many there are. */
@inline
export function firstOf(leaf: usize): i32 {
  return -1 - load<i32>(leaf, 12);
}
@inline
export function countOf(leaf: usize): i32 {
  return load<i32>(leaf, 28);
}
