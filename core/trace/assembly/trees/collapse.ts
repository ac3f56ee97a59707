import { firstPart, isLeaf, secondPart } from './binary';
import { allocate } from '../base/per-thread';

/**
 * Chooses which boxes of a binary tree become the children of each eight-wide node, so that the summed surface area of
 * all nodes, and with it the expected number of visits, is least (H. Ylitie, T. Karras & S. Laine, “Efficient
 * incoherent ray traversal on GPUs through compressed wide BVHs”, 2017, section 3.1).
 *
 * For each node of the binary tree, from COSTS on: its cost if it may pass up to 1 … 7 boxes to its parent; and for 2 …
 * 8 boxes, in four bits each, how many of them its first child passes up (0: as for one box fewer).
 */
export const WIDE: i32 = 8;
const COSTS: usize = 32;
const SHARES: usize = 60;

/** For 2 … 8 boxes, the least cost and the share of the first child. */
const costs = allocate(48);
const taken = allocate(48);

/** A leaf costs the same in every tree. */
@inline
export function leafCosts(node: usize): void {
  const nothing = f32x4.splat(0);
  v128.store(node, nothing, COSTS);
  v128.store(node, nothing, COSTS + 16);
}

/** @param area half the surface area of its box */
export function nodeCosts(node: usize, first: usize, second: usize, area: f32): void {
  // Being allowed one more box costs less or the same; a leaf passes up one box, at no cost.
  const firstAlone = isLeaf(first);
  const secondAlone = isLeaf(second);
  for (let n = 2; n <= WIDE; n++) {
    if (firstAlone || secondAlone) {
      store<f32>(costs + (<usize>n << 2), firstAlone ? costOf(second, n - 1) : costOf(first, n - 1));
      store<u32>(taken + (<usize>n << 2), firstAlone ? 1 : n - 1);
      continue;
    }
    let best: f32 = Infinity;
    // Boxes may be so large that no cost is finite.
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

/** Cost if a node passes up at most this many boxes. */
@inline
function costOf(node: usize, n: i32): f32 {
  return load<f32>(node + (<usize>(n - 1) << 2), COSTS);
}

let put: usize = 0;
const below = allocate(4 * 8);

/**
 * Lists the boxes that an eight-wide node has in place of a binary node.
 *
 * @param at where their addresses go, 4 bytes each
 * @returns how many there are
 */
export function boxesOf(node: usize, at: usize): i32 {
  let count = handed(node, at);
  // With equal costs, as for coincident triangles, a node might stay separate though its boxes would fit into its
  // parent; there would be more nodes than memory was reserved for.
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

/** The cheapest set of boxes. */
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
