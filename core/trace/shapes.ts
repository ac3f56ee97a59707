import type { DistanceField } from '../shape/fractals/field';
import type { Drawn } from './drawn';
import { fieldBox } from './marched';
import type { TraceMemory } from './memory';

/** Bytes of a node, of a packet of four triangles, of a box and of a triangle's corners; see core/trace/assembly/tree.ts. */
const [NODE, PACKET, BOX, CORNERS] = [112, 160, 32, 48];
/** See core/trace/assembly/scene.ts. */
const MESH_NUMBERS = 6;

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
    const row = [
      memory.put(normals),
      memory.put(triangles),
      memory.put(kinds),
      memory.put(positions),
      uv ? memory.put(uv) : 0,
      crevices ? memory.put(crevices) : 0,
    ];
    memory.whole(this.table + 4 * MESH_NUMBERS * shape, MESH_NUMBERS).set(row);
    const box = { low: [Infinity, Infinity, Infinity], high: [-Infinity, -Infinity, -Infinity] };
    const root = this.nodes;
    if (count === 0) return { drawn, shape, root: -1, ...box };
    // What the tree is built from is not needed after it.
    const { mark } = memory;
    const boxes = memory.room(BOX * count);
    const corners = memory.room(CORNERS * count);
    const order = memory.room(4 * count);
    const [b, c] = [memory.floats(boxes, 8 * count), memory.floats(corners, 12 * count)];
    const some = triangles.find((v) => isPlace(positions, v));
    if (some === undefined) {
      memory.release(mark);
      return { drawn, shape, root: -1, ...box };
    }
    for (let t = 0; t < count; t++) {
      // A face with a corner that is nowhere is none: all its corners are one of another face.
      const [p, q, r] = [triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]];
      const whole = isPlace(positions, p) && isPlace(positions, q) && isPlace(positions, r);
      for (let k = 0; k < 3; k++) {
        let [low, high] = [Infinity, -Infinity];
        for (let v = 0; v < 3; v++) {
          const x = positions[3 * (whole ? triangles[3 * t + v] : some) + k];
          c[12 * t + 4 * v + k] = x;
          low = Math.min(low, x);
          high = Math.max(high, x);
        }
        b[8 * t + k] = low;
        b[8 * t + 4 + k] = high;
        box.low[k] = Math.min(box.low[k], low);
        box.high[k] = Math.max(box.high[k], high);
      }
    }
    const made = memory.run.buildTree(
      boxes,
      count,
      order,
      this.nodeBase,
      this.nodes,
      this.packetBase,
      this.packets,
      corners,
    );
    this.nodes = Number(made & 0xffffffffn);
    this.packets = Number(made >> 32n);
    memory.release(mark);
    return { drawn, shape, root, ...box };
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
