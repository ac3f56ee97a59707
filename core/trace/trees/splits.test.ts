import { describe, expect, it } from 'vitest';
import { randomSource } from '../../maths/random';
import { meshOf } from '../../shape/builder';
import { uniformConnectivity, type Mesh } from '../../shape/mesh';
import { traceMeshOf } from '../scene/trace-mesh';
import { ball, needles, pictureOf, settings, bowl } from '../fixture';
import { TraceMemory } from '../memory/memory';
import { Tracer } from '../paths/tracer';
import { BINARY_TREE, BOX, CORNERS, NODE, PACKET, WIDE } from './tree-sizes';

/** Boxes of a mesh, long triangles in so many pieces more at most, and a tree over them. */
function boxesOf(mesh: Mesh, most: number) {
  const memory = new TraceMemory();
  const { positions, triangles } = traceMeshOf(mesh, false);
  const count = triangles.length / 3;
  const [points, corners] = [memory.put(positions), memory.put(triangles)];
  const whole = memory.allocate(BOX);
  const vectors = memory.allocate(CORNERS * count);
  const boxes = memory.allocate(BOX * (count + most));
  memory.run.triangleBoxes(points, corners, count, 0, boxes, vectors, whole);
  const more = memory.run.planSplits(boxes, vectors, count, most);
  const all = memory.run.splitTriangles(boxes, vectors, count, more);
  const before = memory.floats(boxes, 8 * all).slice();
  const [nodes, packets] = [memory.allocate(NODE * (all + 2)), memory.allocate(PACKET * all)];
  const made = memory.run.buildTree(boxes, all, nodes, 0, packets, 0, vectors, memory.allocate(BINARY_TREE * all));
  return {
    count,
    more,
    all,
    boxes: before,
    nodes: memory.floats(nodes, (NODE / 4) * Number(made & 0xffffffffn)).slice(),
  };
}

/** The packets of a shape's tree, as a tracer has it. */
function treeOf(tracer: Tracer, mesh: Mesh): Uint8Array {
  return (tracer as unknown as { builtTree(mesh: Mesh): { packets: Uint8Array } }).builtTree(mesh).packets.slice();
}

/** The surfaces of all boxes of a tree together, halved: how many of them rays meet goes by that. */
function surfaces(nodes: Float32Array): number {
  let sum = 0;
  for (let at = 0; at < nodes.length; at += NODE / 4)
    for (let k = 0; k < WIDE; k++) {
      const [x, y, z] = [0, 1, 2].map((axis) => nodes[at + (axis + 3) * WIDE + k] - nodes[at + axis * WIDE + k]);
      if (!Number.isNaN(x)) sum += x * y + y * z + z * x;
    }
  return sum;
}

describe('long triangles are looked at in pieces', () => {
  it('that have every point of them in one box or another', () => {
    const mesh = needles(200, 5, 0.03);
    const { boxes, all, count } = boxesOf(mesh, 600);
    expect(all).toBeGreaterThan(2 * count);
    const numbers = new Int32Array(boxes.buffer);
    const random = randomSource(9);
    let outside = 0;
    for (let i = 0; i < count; i++) {
      if (i % 40 === 7 || i % 40 === 11) continue;
      const own = Array.from({ length: all }, (_, k) => 8 * k).filter((k) => numbers[k + 3] === numbers[8 * i + 3]);
      const corner = (k: number, axis: number) => mesh.positions[9 * i + 3 * k + axis];
      for (let n = 0; n < 200; n++) {
        const u = random();
        const v = random() * (1 - u);
        const p = [0, 1, 2].map((axis) => (1 - u - v) * corner(0, axis) + u * corner(1, axis) + v * corner(2, axis));
        if (!own.some((k) => p.every((x, axis) => x >= boxes[k + axis] - 1e-7 && x <= boxes[k + 4 + axis] + 1e-7)))
          outside++;
      }
    }
    expect(outside).toBe(0);
  });
  it('no more of them than there may be, and those first that are largest', () => {
    for (const most of [0, 10, 100, 1000]) {
      const { count, more, all } = boxesOf(needles(100), most);
      expect(more).toBeLessThanOrEqual(most);
      expect(all).toBeLessThanOrEqual(count + more);
      // Shares are whole numbers, so that a few are left over.
      expect(all).toBeGreaterThanOrEqual(count + Math.min(0.6 * most, 3 * count));
    }
    const [few, long] = [needles(50), needles(50, 8)];
    const small = long.positions.map((x) => 0.01 * x);
    const both = meshOf(
      uniformConnectivity(
        300,
        3,
        Uint32Array.from({ length: 300 }, (_, i) => i),
      ),
      Float32Array.from([...few.positions, ...small]),
    );
    const { boxes, count, all } = boxesOf(both, 60);
    const numbers = new Int32Array(boxes.buffer);
    const first = numbers[3];
    const added = Array.from({ length: all - count }, (_, k) => numbers[8 * (count + k) + 3] - first);
    expect(added.length).toBeGreaterThan(20);
    expect(added.every((triangle) => triangle < 50)).toBe(true);
  });
  it('so that rays have far less to look at; what has none is as it was', () => {
    const mesh = needles(2000);
    expect(surfaces(boxesOf(mesh, 6000).nodes)).toBeLessThan(0.6 * surfaces(boxesOf(mesh, 0).nodes));
    // At its poles a ball has long ones, which make little of it.
    expect(boxesOf(ball(1, 24), 5000).more).toBe(0);
    const even = bowl(24);
    expect(boxesOf(even, 5000).more).toBe(0);
    expect(boxesOf(even, 5000).nodes).toEqual(boxesOf(even, 0).nodes);
  });
  it('whatever was traced before: where there are too many triangles for it, a tree with pieces is not taken over', () => {
    const [long, many] = [needles(400), ball(1, 370)];
    const both = pictureOf([{ mesh: many }, { mesh: long }], []);
    const [after, fresh] = [new Tracer(), new Tracer()];
    after.load(pictureOf([{ mesh: long }], []), settings);
    const alone = after.bytes;
    after.load(both, settings);
    fresh.load(both, settings);
    expect(treeOf(after, long)).toEqual(treeOf(fresh, long));
    // And back: it is in pieces again.
    after.load(pictureOf([{ mesh: long }], []), settings);
    expect(after.bytes).toBe(alone);
    expect(treeOf(after, long).length).toBeGreaterThan(1.5 * treeOf(fresh, long).length);
  });
});
