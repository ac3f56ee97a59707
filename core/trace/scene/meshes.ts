import type { DistanceField } from '../../shape/fractals/field';
import type { TraceMesh } from './trace-mesh';
import { fieldBox } from './distance-fields';
import type { TraceMemory } from '../memory/memory';
import { BINARY_TREE, BOX, CORNERS, NODE, PACKET } from '../trees/tree-sizes';

/** See core/trace/assembly/base/scene.ts. */
const MESH_NUMBERS = 6;

/** Root of a shape without any triangle. */
export const NO_TREE = -1;
/** Extra boxes for long triangles of a shape: per triangle, and in all. */
const [SPLITS_PER_TRIANGLE, MAX_SPLITS] = [3, 16_384];
/** With more triangles than this in all shapes no triangle is split: memory would run out. */
const MAX_SPLIT_TRIANGLES = 524_288;
/** A refitted tree is rebuilt if it costs a ray more than this factor. */
const REBUILD_COST = 1.3;

/** A mesh laid out in memory. */
export interface PlacedMesh {
  readonly mesh: TraceMesh;
  /** Its index, and the byte offset of its tree's root: −1 if it has no triangle, lower for a distance field. */
  readonly shape: number;
  readonly root: number;
  readonly low: readonly number[];
  readonly high: readonly number[];
  /** Its distance field, if it is one. */
  readonly field?: DistanceField;
  /** Range of its nodes and packets, ends exclusive. */
  readonly span?: Span;
  /** Its tree was refitted from that of another mesh. */
  readonly refitted?: boolean;
}

interface Span {
  readonly firstNode: number;
  readonly endNode: number;
  readonly firstPacket: number;
  readonly endPacket: number;
}

/** The tree of a mesh, which another scene may copy. */
export interface BuiltTree {
  readonly placed: PlacedMesh & { readonly span: Span };
  /** Its long triangles are split: a tree is reused only where that holds too. */
  readonly splits: boolean;
  readonly nodes: Uint8Array;
  readonly packets: Uint8Array;
}

/** Trees from which a mesh may get its own without building. */
export interface ReusableTree {
  /** The tree of the very same mesh. */
  readonly sameMesh?: BuiltTree;
  /** The tree of a mesh that may differ in vertex positions only. */
  readonly sameTopology?: BuiltTree;
}

type Tree = Required<Pick<PlacedMesh, 'root' | 'span'>>;
type Box = Pick<PlacedMesh, 'low' | 'high'>;

/** Addresses of a mesh that needs a tree, its number of triangles, and a finite vertex. */
interface MeshBuffers {
  readonly points: number;
  readonly corners: number;
  readonly count: number;
  readonly some: number;
}

/** Meshes and their trees in memory, preceded by the top-level tree. */
export class MeshStore {
  readonly nodeBase: number;
  readonly packetBase: number;
  readonly table: number;
  /** Long triangles are split. */
  private readonly splits: boolean;
  private nodes: number;
  private packets = 0;
  private shapes = 0;

  /** @param standing most instances */
  constructor(
    private readonly memory: TraceMemory,
    shapes: readonly TraceMesh[],
    standing: number,
  ) {
    const count = (s: TraceMesh) => s.triangles.length / 3;
    this.splits = shapes.reduce((n, s) => n + count(s), 0) <= MAX_SPLIT_TRIANGLES;
    const triangles = shapes.reduce((n, s) => n + count(s) + this.extraSplits(count(s)), 0);
    // A node holds eight boxes, and no child would fit into its parent (collapse.ts); with more than four triangles or
    // more than one instance below each node but the root, there is at most one node for every four triangles or for
    // almost two instances.
    this.nodeBase = memory.allocate(NODE * (2 + shapes.length + Math.ceil(triangles / 4) + standing));
    this.packetBase = memory.allocate(PACKET * (triangles + 1));
    // The top-level tree comes first: traversal starts at node 0.
    this.nodes = 2 + standing;
    this.table = memory.allocate(4 * MESH_NUMBERS * Math.max(1, shapes.length));
  }

  private extraSplits(triangles: number): number {
    return this.splits ? Math.min(SPLITS_PER_TRIANGLE * triangles, MAX_SPLITS) : 0;
  }

  /**
   * Adds a distance field, which has no tree.
   *
   * @param number of the field within the picture
   */
  placeField(mesh: TraceMesh, field: DistanceField, number: number): PlacedMesh {
    const shape = this.shapes++;
    this.memory.whole(this.table + 4 * MESH_NUMBERS * shape, MESH_NUMBERS).fill(0);
    return { mesh, shape, root: -2 - number, field, ...fieldBox(field) };
  }

  /**
   * Adds a mesh with its tree: copied if known, refitted if one of the same topology serves, else built. Equal meshes
   * get equal trees, whichever way, except for refitted ones.
   */
  place(mesh: TraceMesh, { sameMesh: same, sameTopology: like }: ReusableTree = {}): PlacedMesh {
    const { memory } = this;
    const { positions, normals, triangles, kinds, uv, occlusion } = mesh;
    const shape = this.shapes++;
    const count = triangles.length / 3;
    const [points, corners] = [memory.put(positions), memory.put(triangles)];
    const row = [
      memory.put(normals),
      corners,
      memory.put(kinds),
      points,
      uv ? memory.put(uv) : 0,
      occlusion ? memory.put(occlusion) : 0,
    ];
    memory.whole(this.table + 4 * MESH_NUMBERS * shape, MESH_NUMBERS).set(row);
    if (same?.splits === this.splits) {
      const { low, high } = same.placed;
      return { mesh, shape, ...this.copyTree(same), low, high };
    }
    const some = triangles.find((v) => isPlace(positions, v));
    if (some === undefined) return { mesh, shape, root: NO_TREE, low: [], high: [] };
    const at = { points, corners, count, some };
    const known =
      like?.splits === this.splits && equal(like.placed.mesh.triangles, triangles) ? this.refit(like, at) : undefined;
    return { mesh, shape, ...(known ?? this.build(at)) };
  }

  /** The tree of a mesh; its bytes are valid until another scene is laid out. */
  builtTree(placed: PlacedMesh): BuiltTree | undefined {
    const { memory, nodeBase, packetBase } = this;
    const { span } = placed;
    if (!span) return undefined;
    const { firstNode, endNode, firstPacket, endPacket } = span;
    return {
      placed: { ...placed, span },
      splits: this.splits,
      nodes: memory.bytes(nodeBase + NODE * firstNode, NODE * (endNode - firstNode)),
      packets: memory.bytes(packetBase + PACKET * firstPacket, PACKET * (endPacket - firstPacket)),
    };
  }

  private build({ points, corners, count, some }: MeshBuffers): Tree & Box {
    const { memory, nodeBase, packetBase } = this;
    const [firstNode, firstPacket] = [this.nodes, this.packets];
    // Scratch space of the build is freed afterwards.
    const { mark } = memory;
    const whole = memory.allocate(BOX);
    const vectors = memory.allocate(CORNERS * count);
    const boxes = memory.allocate(BOX * count);
    memory.run.triangleBoxes(points, corners, count, some, boxes, vectors, whole);
    // Extra boxes directly follow the others.
    const more = memory.run.planSplits(boxes, vectors, count, this.extraSplits(count));
    memory.allocate(BOX * more);
    const all = memory.run.splitTriangles(boxes, vectors, count, more);
    const made = memory.run.buildTree(
      boxes,
      all,
      nodeBase,
      firstNode,
      packetBase,
      firstPacket,
      vectors,
      memory.allocate(BINARY_TREE * all),
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

  private copyTree({ placed: { span }, nodes, packets }: BuiltTree): Tree {
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

  /** Undefined if the refitted tree is bad: triangles have moved apart. */
  private refit(
    sameTopology: BuiltTree,
    { points, corners, some }: MeshBuffers,
  ): (Tree & Box & Pick<PlacedMesh, 'refitted'>) | undefined {
    const { memory, nodeBase, packetBase } = this;
    const [nodes, packets] = [this.nodes, this.packets];
    const tree = this.copyTree(sameTopology);
    const { firstNode, endNode } = tree.span;
    const { mark } = memory;
    const whole = memory.allocate(BOX);
    const room = memory.allocate(BOX * (endNode - firstNode));
    const cost = memory.run.refitTree(nodeBase, firstNode, endNode, packetBase, points, corners, some, whole, room);
    const box = this.boxAt(whole);
    memory.release(mark);
    if (cost <= REBUILD_COST) return { ...tree, ...box, refitted: true };
    [this.nodes, this.packets] = [nodes, packets];
    return undefined;
  }

  /**
   * Builds the top-level tree.
   *
   * @param put writes the lowest x, y, z of an instance at an offset, and the highest so many numbers behind
   */
  buildTopLevel(count: number, put: (i: number, to: Float32Array, at: number, apart: number) => void): void {
    const { memory } = this;
    if (count === 0) return;
    const { mark } = memory;
    const boxes = memory.allocate(BOX * count);
    const numbers = memory.floats(boxes, (BOX / 4) * count);
    for (let i = 0; i < count; i++) put(i, numbers, (BOX / 4) * i, BOX / 8);
    memory.run.buildTree(boxes, count, this.nodeBase, 0, 0, 0, 0, memory.allocate(BINARY_TREE * count));
    memory.release(mark);
  }
}

/** Beyond this, in metres, squared distances overflow. */
const FARTHEST = 1e15;

function equal(a: Uint32Array, b: Uint32Array): boolean {
  return a === b || (a.length === b.length && a.every((x, i) => x === b[i]));
}

/** Whether a vertex is finite. */
function isPlace(positions: Float32Array, vertex: number): boolean {
  for (let i = 3 * vertex; i < 3 * vertex + 3; i++) if (!(Math.abs(positions[i]) < FARTHEST)) return false;
  return true;
}
