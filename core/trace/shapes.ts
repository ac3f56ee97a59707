import type { DistanceField } from '../shape/fractals/field';
import type { Drawn } from './drawn';
import { fieldBox } from './marched';
import type { TraceMemory } from './memory';

/** Bytes of a node, of a packet of four triangles, of a box and of a triangle's corners; see core/trace/assembly/tree.ts. */
const [NODE, PACKET, BOX, CORNERS] = [112, 160, 32, 48];
/** See core/trace/assembly/scene.ts. */
const MESH_NUMBERS = 6;

/** The first node of a shape without any triangle. */
export const NOTHING = -1;

/** A shape as it lies in memory. */
export interface Placed {
  readonly drawn: Drawn;
  /** Its number among shapes, and the first node of its tree: −1 where it has no triangle, below where it is an endless form. */
  readonly shape: number;
  readonly root: number;
  readonly low: readonly number[];
  readonly high: readonly number[];
  /** What it is where it is an endless form. */
  readonly field?: DistanceField;
}

/** Shapes with their trees in memory, before them the tree over everything that stands there. */
export class ShapeRoom {
  readonly nodeBase: number;
  readonly packetBase: number;
  readonly table: number;
  private nodes: number;
  private packets = 0;
  private shapes = 0;

  /** @param standing how much there will be that stands there */
  constructor(
    private readonly memory: TraceMemory,
    shapes: readonly Drawn[],
    standing: number,
  ) {
    const triangles = shapes.reduce((n, s) => n + s.triangles.length / 3, 0);
    // A node of a shape has more than four triangles below it, one of what stands there more than one thing, or it is
    // the first of its tree.
    this.nodeBase = memory.room(NODE * (2 + shapes.length + Math.ceil(triangles / 3) + standing));
    this.packetBase = memory.room(PACKET * (triangles + 1));
    // The tree over everything comes first: a ray begins at node 0.
    this.nodes = 2 + standing;
    this.table = memory.room(4 * MESH_NUMBERS * Math.max(1, shapes.length));
  }

  /**
   * Puts an endless form there, which has no tree.
   *
   * @param number of the form among those of the picture
   */
  placeField(drawn: Drawn, field: DistanceField, number: number): Placed {
    const shape = this.shapes++;
    this.memory.whole(this.table + 4 * MESH_NUMBERS * shape, MESH_NUMBERS).fill(0);
    return { drawn, shape, root: -2 - number, field, ...fieldBox(field) };
  }

  /** Puts a shape there with its tree. */
  place(drawn: Drawn): Placed {
    const { memory } = this;
    const { positions, normals, triangles, kinds, uv, crevices } = drawn;
    const shape = this.shapes++;
    const count = triangles.length / 3;
    const [points, corners] = [memory.put(positions), memory.put(triangles)];
    const row = [
      memory.put(normals),
      corners,
      memory.put(kinds),
      points,
      uv ? memory.put(uv) : 0,
      crevices ? memory.put(crevices) : 0,
    ];
    memory.whole(this.table + 4 * MESH_NUMBERS * shape, MESH_NUMBERS).set(row);
    const root = this.nodes;
    const some = triangles.find((v) => isPlace(positions, v));
    if (some === undefined) return { drawn, shape, root: NOTHING, low: [], high: [] };
    // What the tree is built from is not needed after it.
    const { mark } = memory;
    const boxes = memory.room(BOX * count);
    const vectors = memory.room(CORNERS * count);
    const order = memory.room(4 * count);
    const whole = memory.room(32);
    memory.run.triangleBoxes(points, corners, count, some, boxes, vectors, whole);
    const [low, high] = [0, 4].map((k) => [...memory.floats(whole, 8).subarray(k, k + 3)]);
    const made = memory.run.buildTree(
      boxes,
      count,
      order,
      this.nodeBase,
      this.nodes,
      this.packetBase,
      this.packets,
      vectors,
    );
    this.nodes = Number(made & 0xffffffffn);
    this.packets = Number(made >> 32n);
    memory.release(mark);
    return { drawn, shape, root, low, high };
  }

  /**
   * Builds the tree over everything that stands there.
   *
   * @param all lowest and highest x, y, z of each
   * @returns where the list is by which leaves name them
   */
  over(all: readonly (readonly number[])[]): number {
    const { memory } = this;
    const count = all.length;
    const order = memory.room(4 * Math.max(1, count));
    if (count === 0) return order;
    const { mark } = memory;
    const boxes = memory.room(BOX * count);
    const b = memory.floats(boxes, 8 * count);
    all.forEach((box, i) => {
      b.set(box.slice(0, 3), 8 * i);
      b.set(box.slice(3), 8 * i + 4);
    });
    memory.run.buildTree(boxes, count, order, this.nodeBase, 0, 0, 0, 0);
    memory.release(mark);
    return order;
  }
}

/** Beyond this, in metres, squares of distances are no numbers any more. */
const FARTHEST = 1e15;

/** Whether a vertex is somewhere. */
function isPlace(positions: Float32Array, vertex: number): boolean {
  for (let i = 3 * vertex; i < 3 * vertex + 3; i++) if (!(Math.abs(positions[i]) < FARTHEST)) return false;
  return true;
}
