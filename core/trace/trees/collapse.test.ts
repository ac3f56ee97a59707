import { describe, expect, it } from 'vitest';
import { randomSource } from '../../maths/random';
import { TraceMemory } from '../memory/memory';
import { BINARY_TREE, BOX, NODE, WIDE } from './tree-sizes';

type Box = readonly number[];

interface Inner {
  readonly area: number;
  /** Undefined for a leaf. */
  readonly parts?: readonly [Inner, Inner];
}

/** A tree over boxes, one in each leaf, and the binary one that it was made from. */
function treeOver(all: readonly Box[]) {
  const memory = new TraceMemory();
  const boxes = memory.allocate(BOX * all.length);
  all.forEach((box, i) => memory.floats(boxes + BOX * i, 8).set([...box.slice(0, 3), 0, ...box.slice(3), 0]));
  const nodes = memory.allocate(NODE * (2 + all.length));
  const binary = memory.allocate(BINARY_TREE * all.length);
  const count = Number(memory.run.buildTree(boxes, all.length, nodes, 0, 0, 0, 0, binary) & 0xffffffffn);
  const [floats, whole] = [memory.floats(nodes, (NODE / 4) * count), memory.whole(nodes, (NODE / 4) * count)];
  const codes = (n: number) =>
    Array.from({ length: WIDE }, (_, k) => whole[(NODE / 4) * n + 6 * WIDE + k] | 0).filter((code) => code !== -1);
  const box = (n: number, k: number) => [0, 1, 2, 3, 4, 5].map((side) => floats[(NODE / 4) * n + side * WIDE + k]);
  const binaryAt = (at: number): Inner => {
    const numbers = memory.floats(at, 8);
    const area = areaOf([...numbers.slice(0, 3), ...numbers.slice(4, 7)]);
    const [first, second] = [memory.whole(at, 8)[3] | 0, memory.whole(at, 8)[7]];
    return first < 0 ? { area } : { area, parts: [binaryAt(first), binaryAt(second)] };
  };
  return { count, codes, box, binary: binaryAt(binary) };
}

function areaOf(box: Box): number {
  const [x, y, z] = [0, 1, 2].map((axis) => box[axis + 3] - box[axis]);
  return x * y + y * z + z * x;
}

/** Every way to have up to eight parts of a binary tree instead of one of its nodes. */
function waysFor(node: Inner, most: number): (readonly Inner[])[] {
  const alone = [[node]];
  if (most < 2 || !node.parts) return alone;
  const [a, b] = node.parts;
  return [
    ...alone,
    ...waysFor(a, most - 1).flatMap((one) => waysFor(b, most - one.length).map((other) => [...one, ...other])),
  ];
}

/** The least surfaces that nodes in place of this one and those below it can have, by looking at every way. */
function least(node: Inner, known = new Map<Inner, number>()): number {
  if (!node.parts) return 0;
  const before = known.get(node);
  if (before !== undefined) return before;
  const ways = waysFor(node, WIDE).filter((way) => way.length > 1);
  const cost = node.area + Math.min(...ways.map((way) => way.reduce((sum, part) => sum + least(part, known), 0)));
  known.set(node, cost);
  return cost;
}

function scattered(count: number, seed: number, size: number): Box[] {
  const random = randomSource(seed);
  return Array.from({ length: count }, () => {
    const at = [random(), random(), random() ** 3];
    return [...at, ...at.map((x) => x + size * random() ** 4)];
  });
}

/** The surfaces of nodes that stand in a node, and of the whole. */
function surfacesOf({ count, codes, box, binary }: ReturnType<typeof treeOver>): number {
  let sum = binary.area;
  for (let n = 0; n < count; n++) codes(n).forEach((code, k) => (sum += code >= 0 ? areaOf(box(n, k)) : 0));
  return sum;
}

describe('a tree with eight boxes to a node, made from one with two', () => {
  it('has nodes whose surfaces together are the least there can be', () => {
    let better = 0;
    for (const [count, seed] of [
      [9, 1],
      [12, 2],
      [15, 3],
      [17, 4],
      [20, 5],
      [24, 6],
    ] as const) {
      const tree = treeOver(scattered(count, seed, 0.6));
      const sum = surfacesOf(tree);
      expect(sum / least(tree.binary)).toBeCloseTo(1, 5);
      // Parts that are split where they are largest, until there are eight, are one of the ways.
      if (sum < 0.999 * largestFirst(tree.binary)) better++;
    }
    expect(better).toBeGreaterThan(2);
  });
  it('has every box once, within those above it', () => {
    const all = scattered(3000, 7, 0.1);
    const { count, codes, box } = treeOver(all);
    const seen = new Set<number>();
    const follow = (n: number, within: Box | undefined) =>
      codes(n).forEach((code, k) => {
        const own = box(n, k);
        if (within) expect(own.every((x, side) => (side < 3 ? x >= within[side] : x <= within[side]))).toBe(true);
        if (code >= 0) return follow(code / NODE, own);
        expect(own).toEqual([...Float32Array.from(all[code & 0x7fffffff])]);
        seen.add(code & 0x7fffffff);
      });
    follow(0, undefined);
    expect(seen.size).toBe(all.length);
    expect(count).toBeLessThan(all.length / 3);
  });
  it.each([
    ['that are scattered', scattered(2000, 9, 0.05)],
    ['of no size, all in one place', Array.from({ length: 2000 }, () => [1, 2, 3, 1, 2, 3])],
    ['of which each is half as large as the one before', halves(140)],
    ['so large that their surfaces are no numbers', scattered(500, 5, 0.2).map((box) => box.map((x) => 1e30 * x))],
    ['in a row', Array.from({ length: 700 }, (_, i) => [i, 0, 0, i + 1, 0, 0])],
  ])('has no node that would fit in with the boxes of the one above, of boxes %s', (_, boxes) => {
    const { count, codes } = treeOver(boxes);
    for (let n = 0; n < count; n++)
      for (const code of codes(n))
        if (code >= 0) expect(codes(n).length - 1 + codes(code / NODE).length).toBeGreaterThan(WIDE);
    expect(count).toBeLessThanOrEqual(2 + 0.6 * boxes.length);
  });
});

/** Boxes from the origin, each half as large as the one before. */
function halves(count: number): Box[] {
  return Array.from({ length: count }, (_, i) => [0, 0, 0, 2 ** -i, 2 ** -i, 2 ** -i]);
}

/** The surfaces of nodes where always the largest part is split. */
function largestFirst(node: Inner): number {
  if (!node.parts) return 0;
  const parts: Inner[] = [node];
  while (parts.length < WIDE) {
    const inner = parts.filter((p) => p.parts).sort((a, b) => b.area - a.area);
    if (inner.length === 0) break;
    parts.splice(parts.indexOf(inner[0]), 1, ...inner[0].parts!);
  }
  return node.area + parts.reduce((sum, part) => sum + largestFirst(part), 0);
}
