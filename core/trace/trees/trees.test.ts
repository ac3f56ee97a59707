import { describe, expect, it } from 'vitest';
import { withCopies } from '../../copies/copies';
import { randomSource, randomUnitVector } from '../../maths/random';
import type { Mesh } from '../../shape/mesh';
import { traceMeshOf } from '../scene/trace-mesh';
import { Exposure } from '../paths/exposure';
import { ball, pictureOf, settings, square, white } from '../fixture';
import { TraceMemory } from '../memory/memory';
import { MeshStore, type ReusableTree, type PlacedMesh } from '../scene/meshes';
import { bouncesOf, Tracer } from '../paths/tracer';

const size = { ...settings, width: 24, height: 24, bounces: bouncesOf(4) };
const whole = { x: 0, y: 0, width: 24, height: 24 };

/** The same faces, each corner moved. */
function moved(mesh: Mesh, by: (p: readonly [number, number, number], i: number) => readonly number[]): Mesh {
  const positions = new Float32Array(mesh.positions.length);
  for (let i = 0; i < positions.length; i += 3)
    positions.set(by([mesh.positions[i], mesh.positions[i + 1], mesh.positions[i + 2]], i / 3), i);
  return { ...mesh, positions };
}
const bent = (mesh: Mesh, turns: number) =>
  moved(mesh, ([x, y, z]) => {
    const [c, s] = [Math.cos(turns * y), Math.sin(turns * y)];
    return [c * x - s * z + turns, y, s * x + c * z];
  });

function raysOf(count: number): Float32Array {
  const random = randomSource(11);
  const rays = new Float32Array(6 * count);
  for (let i = 0; i < count; i++) {
    const place = randomUnitVector(random).map((x) => 3 * x);
    rays.set([...place, ...randomUnitVector(random).map((x, k) => 1.2 * x - place[k])], 6 * i);
  }
  return rays;
}

/** A room of its own with one shape in it. */
function alone(mesh: Mesh, known?: ReusableTree): { placed: PlacedMesh; room: MeshStore; tree: number[] } {
  const drawn = traceMeshOf(mesh, false);
  const room = new MeshStore(new TraceMemory(), [drawn], 1);
  const placed = room.place(drawn, known);
  const { nodes, packets } = room.builtTree(placed)!;
  // As whole numbers; a zero may be one from below.
  const tree = [nodes, packets].flatMap((bytes) => [...new Int32Array(bytes.slice().buffer)]);
  return { placed, room, tree: tree.map((word) => (word === -(2 ** 31) ? 0 : word)) };
}

describe('a tree that is taken over', () => {
  it('gives the same picture in every bit, whatever else there is now', () => {
    const [a, b] = [ball(0.7, 12), bent(ball(0.4, 10), 0.8)];
    const first = pictureOf([{ mesh: a }, { mesh: square(2, -1) }], [white], { focalLength: 60 });
    const then = pictureOf([{ mesh: b }, { mesh: square(1, -2) }, { mesh: a }], [white], { focalLength: 50 });
    const one = new Tracer();
    one.load(first, size);
    one.load(then, size);
    const fresh = new Tracer();
    fresh.load(then, size);
    expect(one.samples(whole, 0, 4)).toEqual(fresh.samples(whole, 0, 4));
    expect(one.bytes).toBe(fresh.bytes);
    // And back.
    one.load(first, size);
    fresh.load(first, size);
    expect(one.samples(whole, 0, 2)).toEqual(fresh.samples(whole, 0, 2));
  });
  it('serves copies as well, and shapes that two ribbons have', () => {
    const source = ball(0.3, 8);
    const matrices = new Float32Array(16 * 40);
    const random = randomSource(2);
    for (let i = 0; i < 40; i++)
      matrices.set([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 2 * random() - 1, 2 * random() - 1, random(), 1], 16 * i);
    const copies = withCopies({
      sources: [source, square(0.2)],
      source: Uint16Array.from({ length: 40 }, (_, i) => i % 2),
      matrices,
      order: Float32Array.from({ length: 40 }, (_, i) => i),
      places: 40,
    });
    const picture = pictureOf([{ mesh: source }, { mesh: copies }], [white], { focalLength: 50 });
    const one = new Tracer();
    one.load(pictureOf([{ mesh: source }], [white]), size);
    one.load(picture, size);
    one.load(picture, size);
    const fresh = new Tracer();
    fresh.load(picture, size);
    expect(one.samples(whole, 0, 4)).toEqual(fresh.samples(whole, 0, 4));
  });
});

describe('a tree that is refitted', () => {
  it('is the one that is built, where nothing has moved', () => {
    const mesh = bent(ball(1, 20), 1.3);
    const built = alone(mesh);
    const again = alone(
      { ...mesh, positions: mesh.positions.slice() },
      { sameTopology: built.room.builtTree(built.placed) },
    );
    expect(again.tree).toEqual(built.tree);
    expect([again.placed.low, again.placed.high]).toEqual([built.placed.low, built.placed.high]);
  });
  it('has every ray meet what a built one has it meet', () => {
    const still = ball(1, 24);
    const rays = raysOf(4000);
    for (const turns of [0.02, 0.3, -0.7]) {
      const [now, then] = [still, bent(still, turns)].map((mesh) => pictureOf([{ mesh }], []));
      const [first, refitted, built] = [new Tracer(), new Tracer(), new Tracer()];
      first.load(now, settings);
      refitted.load(then, settings, first);
      built.load(then, settings);
      expect(refitted.trace(rays)).toEqual(built.trace(rays));
      const [any, known] = [refitted, built].map((t) => t.trace(rays, true).far.map((d) => (d < 0 ? 0 : 1)));
      expect(any).toEqual(known);
    }
    // It was refitted indeed: a built one has other nodes.
    const built = alone(bent(still, -0.7));
    const first = alone(still);
    const refitted = alone(bent(still, -0.7), { sameTopology: first.room.builtTree(first.placed) });
    expect(refitted.tree).not.toEqual(built.tree);
    expect(refitted.placed.span).toEqual(first.placed.span);
  });
  it('is built anew where triangles that lay together do so no more, or are others', () => {
    const still = ball(1, 24);
    const first = alone(still);
    const like = first.room.builtTree(first.placed);
    const random = randomSource(5);
    const torn = moved(still, () => [random(), random(), random()]);
    expect(alone(torn, { sameTopology: like }).tree).toEqual(alone(torn).tree);
    expect(alone(ball(1, 23), { sameTopology: like }).tree).toEqual(alone(ball(1, 23)).tree);
    // All in one place has no surface to go by.
    const point = moved(still, () => [1, 2, 3]);
    expect(alone(point, { sameTopology: like }).tree).toEqual(alone(point).tree);
  });
  it('holds with corners that are nowhere, and with one triangle', () => {
    const still = ball(1, 8);
    const rays = raysOf(500);
    const broken = moved(bent(still, 0.1), (p, i) => (i % 17 === 3 ? [NaN, p[1], Infinity] : p));
    const lone: Mesh = { ...square(1), positions: Float32Array.from([-1, -1, 0, 1, -1, 0, 1, 1, 0, -1, 1, 0]) };
    for (const [before, after] of [
      [still, broken],
      [broken, bent(still, 0.2)],
      [lone, moved(lone, ([x, y, z]) => [x, y + 0.1, z + 0.2 * x])],
    ]) {
      const [first, refitted, built] = [new Tracer(), new Tracer(), new Tracer()];
      first.load(pictureOf([{ mesh: before }], []), settings);
      refitted.load(pictureOf([{ mesh: after }], []), settings, first);
      built.load(pictureOf([{ mesh: after }], []), settings);
      expect(refitted.trace(rays)).toEqual(built.trace(rays));
    }
  });
  it('makes the exposure of what bends the picture that trees of its own make', () => {
    const still = ball(0.8, 16);
    const at = (i: number) =>
      pictureOf([{ mesh: bent(still, 0.05 * i) }, { mesh: square(3, -1) }], [white], { focalLength: 50 });
    const instants = Array.from({ length: 4 }, (_, i) => at(i));
    const exposure = new Exposure(instants, size);
    const together = exposure.traced(whole, 8);
    // The same one after another frame, in memory that held it.
    const after = new Exposure(instants, size, new Exposure([at(7), at(8), at(9), at(3)], size).free);
    expect(after.traced(whole, 8).sums).toEqual(together.sums);
    expect(together.sums.some((x) => x > 0)).toBe(true);
  });
  it('does not depend on what was traced before: what was refitted is not taken over', () => {
    const still = ball(1, 12);
    const held = bent(still, 0.6);
    const scene = (first: Mesh) => [first, held].map((mesh) => pictureOf([{ mesh }], []));
    const treeAfter = (before: Mesh) => {
      const { free } = new Exposure(scene(before), settings);
      const [, second] = new Exposure(scene(bent(still, 0.45)), settings, free).free;
      return [...(second as unknown as { builtTree(mesh: Mesh): { nodes: Uint8Array } }).builtTree(held).nodes];
    };
    expect(treeAfter(still)).toEqual(treeAfter(bent(still, 0.3)));
  });
});
