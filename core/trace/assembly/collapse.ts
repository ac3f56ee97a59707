import { firstPart, isLeaf, secondPart } from './binary';
import { ownRoom } from './own';

/**
 * Which boxes of a binary tree a node of eight is to have, so that the surfaces of all nodes together, by which rays meet
 * them, are least (H. Ylitie, T. Karras & S. Laine, “Efficient incoherent ray traversal on GPUs through compressed wide
 * BVHs”, 2017, section 3.1).
 *
 * For each node of the binary tree: what it costs where it may hand up to 1 … 7 boxes to the node above, from COSTS; and for
 * 2 … 8, four bits each, how many of them its first part hands up, 0 for as with one fewer.
 */
export const WIDE: i32 = 8;
const COSTS: usize = 32;
const SHARES: usize = 60;

/** For 2 … 8 boxes, the least cost and the share of the first part. */
const costs = ownRoom(48);
const taken = ownRoom(48);

/** Leaves are the same ones in every tree. */
@inline
export function leafCosts(node: usize): void {
  const nothing = f32x4.splat(0);
  v128.store(node, nothing, COSTS);
  v128.store(node, nothing, COSTS + 16);
}

/** @param area of its box */
export function nodeCosts(node: usize, first: usize, second: usize, area: f32): void {
  // Each more that may be handed up costs less, or as much; a leaf is one, and costs nothing.
  const firstAlone = isLeaf(first);
  const secondAlone = isLeaf(second);
  for (let n = 2; n <= WIDE; n++) {
    if (firstAlone || secondAlone) {
      store<f32>(costs + (<usize>n << 2), firstAlone ? costOf(second, n - 1) : costOf(first, n - 1));
      store<u32>(taken + (<usize>n << 2), firstAlone ? 1 : n - 1);
      continue;
    }
    let best: f32 = Infinity;
    // Boxes may be so large that no cost is a number.
    let share = 1;
    for (let k = max(1, n - 7); k < min(n, 8); k++) {
      const cost = costOf(first, k) + costOf(second, n - k);
      if (cost < best) {
        best = cost;
        share = k;
      }
    }
    store<f32>(costs + (<usize>n << 2), best);
    store<u32>(taken + (<usize>n << 2), share);
  }
  let least = load<f32>(costs + (<usize>WIDE << 2)) + area;
  let shares = load<u32>(taken + (<usize>WIDE << 2)) << 28;
  store<f32>(node, least, COSTS);
  for (let n = 2; n < WIDE; n++) {
    const cost = load<f32>(costs + (<usize>n << 2));
    if (cost <= least) {
      least = cost;
      shares |= load<u32>(taken + (<usize>n << 2)) << ((n - 1) << 2);
    }
    store<f32>(node + (<usize>(n - 1) << 2), least, COSTS);
  }
  store<u32>(node, shares, SHARES);
}

/** What it costs to have a node hand up so many boxes at most. */
@inline
function costOf(node: usize, n: i32): f32 {
  return load<f32>(node + (<usize>(n - 1) << 2), COSTS);
}

let put: usize = 0;
const below = ownRoom(4 * 8);

/**
 * The boxes that a node of eight is to have instead of one of the binary tree.
 *
 * @param at where it is put where they are, 4 bytes each
 * @returns how many they are
 */
export function boxesOf(node: usize, at: usize): i32 {
  let count = handed(node, at);
  // Where costs are the same, as of triangles that all are in one place, a node may stand alone that would fit in with
  // its boxes: there would be more of them than there is room for.
  for (let k = 0; k < count && count < WIDE; ) {
    const part: usize = load<u32>(at + (<usize>k << 2));
    const more = isLeaf(part) ? 0 : handed(part, below);
    if (more == 0 || count - 1 + more > WIDE) {
      k++;
      continue;
    }
    store<u32>(at + (<usize>k << 2), load<u32>(below));
    for (let i = 1; i < more; i++, count++) store<u32>(at + (<usize>count << 2), load<u32>(below + (<usize>i << 2)));
  }
  return count;
}

/** Those that cost least. */
function handed(node: usize, at: usize): i32 {
  put = at;
  if (isLeaf(node)) handUp(node, 1);
  else share(node, <u32>WIDE);
  return <i32>((put - at) >> 2);
}

function share(node: usize, n: u32): void {
  const k = (load<u32>(node, SHARES) >> ((n - 1) << 2)) & 15;
  if (k == 0) return handUp(node, n - 1);
  handUp(firstPart(node), k);
  handUp(secondPart(node), n - k);
}

function handUp(node: usize, n: u32): void {
  if (n > 1 && !isLeaf(node)) return share(node, n);
  store<u32>(put, <u32>node);
  put += 4;
}
