import type { DistanceField } from '../shape/fractals/field';
import type { Drawn } from './drawn';
import { fieldBox } from './marched';
import type { TraceMemory } from './memory';
import { BINARY_TREE, BOX, CORNERS, NODE, PACKET } from './tree-sizes';

/** See core/trace/assembly/scene.ts. */
const MESH_NUMBERS = 6;

/** The first node of a shape without any triangle. */
export const NOTHING = -1;
/** Long triangles of a shape may have so many boxes more, for each of its triangles and in all. */
const [MORE_EACH, MORE] = [3, 16_384];
/** Beyond so many triangles of all shapes none has more: there would be room for fewer. */
const MOST_CUT = 524_288;
/** A tree that was refitted is built anew where rays would cost more than this many times what they did. */
const WORSE = 1.3;

/** A shape as it lies in memory. */
export interface Placed {
  readonly drawn: Drawn;
  /**
   * Its number among shapes, and how many bytes the first node of its tree is from the first of all: −1 where it has no
   * triangle, below where it is an endless form.
   */
  readonly shape: number;
  readonly root: number;
  readonly low: readonly number[];
  readonly high: readonly number[];
  /** What it is where it is an endless form. */
  readonly field?: DistanceField;
  /** Where its tree lies: nodes and packets, the ends not among them. */
  readonly span?: Span;
  /** Its tree is that of another shape, refitted. */
  readonly refitted?: boolean;
}

interface Span {
  readonly firstNode: number;
  readonly endNode: number;
  readonly firstPacket: number;
  readonly endPacket: number;
}

/** The tree of a shape, to be taken over by another scene. */
export interface Grown {
  readonly placed: Placed & { readonly span: Span };
  /** Its long triangles are in pieces: a tree is taken over where that would be so, too. */
  readonly cut: boolean;
  readonly nodes: Uint8Array;
  readonly packets: Uint8Array;
}

/** What a shape need not have a tree built for. */
export interface Known {
  /** The tree of the very same shape. */
  readonly same?: Grown;
  /** That of one which may have the same triangles in other places. */
  readonly like?: Grown;
}

type Tree = Required<Pick<Placed, 'root' | 'span'>>;
type Box = Pick<Placed, 'low' | 'high'>;

/** Where a shape lies that is to have a tree, how many triangles it has, and a vertex that is somewhere. */
interface Laid {
  readonly points: number;
  readonly corners: number;
  readonly count: number;
  readonly some: number;
}

/** Shapes with their trees in memory, before them the tree over everything that stands there. */
export class ShapeRoom {
  readonly nodeBase: number;
  readonly packetBase: number;
  readonly table: number;
  /** Long triangles are looked at in pieces. */
  private readonly cut: boolean;
  private nodes: number;
  private packets = 0;
  private shapes = 0;

  /** @param standing how much there will be that stands there */
  constructor(
    private readonly memory: TraceMemory,
    shapes: readonly Drawn[],
    standing: number,
  ) {
    const count = (s: Drawn) => s.triangles.length / 3;
    this.cut = shapes.reduce((n, s) => n + count(s), 0) <= MOST_CUT;
    const triangles = shapes.reduce((n, s) => n + count(s) + this.morePieces(count(s)), 0);
    // A node has room for eight boxes, and none below it would fit in with its own (collapse.ts); with more than four
    // triangles or more than one thing below each but the first of its tree, there is one for every four or for less than two.
    this.nodeBase = memory.room(NODE * (2 + shapes.length + Math.ceil(triangles / 4) + standing));
    this.packetBase = memory.room(PACKET * (triangles + 1));
    // The tree over everything comes first: a ray begins at node 0.
    this.nodes = 2 + standing;
    this.table = memory.room(4 * MESH_NUMBERS * Math.max(1, shapes.length));
  }

  private morePieces(triangles: number): number {
    return this.cut ? Math.min(MORE_EACH * triangles, MORE) : 0;
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

  /**
   * Puts a shape there with its tree: taken over where it is known, refitted where that of one alike will do, else built.
   * The same tree for the same shape, whichever way it came about, but where it was refitted.
   */
  place(drawn: Drawn, { same, like }: Known = {}): Placed {
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
    if (same?.cut === this.cut) {
      const { low, high } = same.placed;
      return { drawn, shape, ...this.takeOver(same), low, high };
    }
    const some = triangles.find((v) => isPlace(positions, v));
    if (some === undefined) return { drawn, shape, root: NOTHING, low: [], high: [] };
    const at = { points, corners, count, some };
    const known =
      like?.cut === this.cut && equal(like.placed.drawn.triangles, triangles) ? this.refit(like, at) : undefined;
    return { drawn, shape, ...(known ?? this.build(at)) };
  }

  /** The tree of a shape; its bytes are good until there is another scene in this memory. */
  grown(placed: Placed): Grown | undefined {
    const { memory, nodeBase, packetBase } = this;
    const { span } = placed;
    if (!span) return undefined;
    const { firstNode, endNode, firstPacket, endPacket } = span;
    return {
      placed: { ...placed, span },
      cut: this.cut,
      nodes: memory.bytes(nodeBase + NODE * firstNode, NODE * (endNode - firstNode)),
      packets: memory.bytes(packetBase + PACKET * firstPacket, PACKET * (endPacket - firstPacket)),
    };
  }

  private build({ points, corners, count, some }: Laid): Tree & Box {
    const { memory, nodeBase, packetBase } = this;
    const [firstNode, firstPacket] = [this.nodes, this.packets];
    // What the tree is built from is not needed after it.
    const { mark } = memory;
    const whole = memory.room(BOX);
    const vectors = memory.room(CORNERS * count);
    const boxes = memory.room(BOX * count);
    memory.run.triangleBoxes(points, corners, count, some, boxes, vectors, whole);
    // Boxes of pieces come right behind the others.
    const more = memory.run.longTriangles(boxes, vectors, count, this.morePieces(count));
    memory.room(BOX * more);
    const all = memory.run.putPieces(boxes, vectors, count, more);
    const made = memory.run.buildTree(
      boxes,
      all,
      nodeBase,
      firstNode,
      packetBase,
      firstPacket,
      vectors,
      memory.room(BINARY_TREE * all),
    );
    this.nodes = Number(made & 0xffffffffn);
    this.packets = Number(made >> 32n);
    const box = this.boxAt(whole);
    memory.release(mark);
    const span = { firstNode, firstPacket, endNode: this.nodes, endPacket: this.packets };
    return { root: NODE * firstNode, span, ...box };
  }

  private boxAt(whole: number): Box {
    const numbers = this.memory.floats(whole, 8);
    return { low: [...numbers.subarray(0, 3)], high: [...numbers.subarray(4, 7)] };
  }

  private takeOver({ placed: { span }, nodes, packets }: Grown): Tree {
    const { memory, nodeBase, packetBase } = this;
    const [firstNode, firstPacket] = [this.nodes, this.packets];
    const [endNode, endPacket] = [firstNode + nodes.length / NODE, firstPacket + packets.length / PACKET];
    memory.bytes(nodeBase + NODE * firstNode, nodes.length).set(nodes);
    memory.bytes(packetBase + PACKET * firstPacket, packets.length).set(packets);
    memory.run.moveTree(nodeBase, firstNode, endNode, firstNode - span.firstNode, firstPacket - span.firstPacket);
    this.nodes = endNode;
    this.packets = endPacket;
    return { root: NODE * firstNode, span: { firstNode, firstPacket, endNode, endPacket } };
  }

  /** Undefined where the tree has become a bad one: triangles that lay together do so no more. */
  private refit(like: Grown, { points, corners, some }: Laid): (Tree & Box & Pick<Placed, 'refitted'>) | undefined {
    const { memory, nodeBase, packetBase } = this;
    const [nodes, packets] = [this.nodes, this.packets];
    const tree = this.takeOver(like);
    const { firstNode, endNode } = tree.span;
    const { mark } = memory;
    const whole = memory.room(BOX);
    const room = memory.room(BOX * (endNode - firstNode));
    const cost = memory.run.refitTree(nodeBase, firstNode, endNode, packetBase, points, corners, some, whole, room);
    const box = this.boxAt(whole);
    memory.release(mark);
    if (cost <= WORSE) return { ...tree, ...box, refitted: true };
    [this.nodes, this.packets] = [nodes, packets];
    return undefined;
  }

  /**
   * Builds the tree over everything that stands there.
   *
   * @param put puts the lowest x, y, z of one thing somewhere, and the highest so many numbers behind
   */
  over(count: number, put: (i: number, to: Float32Array, at: number, apart: number) => void): void {
    const { memory } = this;
    if (count === 0) return;
    const { mark } = memory;
    const boxes = memory.room(BOX * count);
    const numbers = memory.floats(boxes, (BOX / 4) * count);
    for (let i = 0; i < count; i++) put(i, numbers, (BOX / 4) * i, BOX / 8);
    memory.run.buildTree(boxes, count, this.nodeBase, 0, 0, 0, 0, memory.room(BINARY_TREE * count));
    memory.release(mark);
  }
}

/** Beyond this, in metres, squares of distances are no numbers any more. */
const FARTHEST = 1e15;

function equal(a: Uint32Array, b: Uint32Array): boolean {
  return a === b || (a.length === b.length && a.every((x, i) => x === b[i]));
}

/** Whether a vertex is somewhere. */
function isPlace(positions: Float32Array, vertex: number): boolean {
  for (let i = 3 * vertex; i < 3 * vertex + 3; i++) if (!(Math.abs(positions[i]) < FARTHEST)) return false;
  return true;
}
