import type { PictureAt } from '../evaluate/picture-at';
import { displayToLight } from '../maths/srgb';
import { projectionOf } from '../scene/projection';
import { drawBuffers, drawTopologyOf } from '../shape/drawable';
import { FINISH, type Copies, type Mesh } from '../shape/mesh';
import { behindOf } from './behind';
import { lampsOf, skyOf, writeLamps } from './lamps';
import { TraceMemory } from './memory';
import { letsThrough, surfaceBlock } from './surfaces';

/** How a picture is traced. */
export interface TraceSettings {
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  /** Surfaces that a path goes on from at most; 0 for light that comes straight from lamps. */
  readonly bounces: number;
  /** The brightest that light from the second surface on may be, before exposure; Infinity for no limit. */
  readonly brightest: number;
  /** By what grain is told: the frame reduced by the loop where it moves, one number where it stands. */
  readonly grain: number;
}

/** A rectangle of pixels of a picture. */
export interface Tile {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Numbers kept of each pixel: sums of red, green, blue, of how much is covered, and of squares of brightness. */
export const SUMS = 5;

/** Bytes of a node, of a packet of four triangles, of a box and of a triangle's corners; see core/trace/assembly/tree.ts. */
const [NODE, PACKET, BOX, CORNERS] = [112, 160, 32, 48];
const COPY_NUMBERS = 36;
const MESH_NUMBERS = 4;
const CAMERA_NUMBERS = 41;
/** Kinds of faces a surface block has. */
const SLOTS = Object.keys(FINISH).length;

/** A shape as it lies in memory. */
interface Placed {
  /** Its number among shapes, and the first node of its tree. */
  readonly shape: number;
  readonly root: number;
  readonly low: readonly number[];
  readonly high: readonly number[];
}

interface Standing {
  readonly placed: Placed;
  /** By columns. */
  readonly matrix: ArrayLike<number>;
  readonly surface: number;
  readonly own: readonly number[];
}

const IDENTITY = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
const NONE = [NaN, NaN, NaN, NaN, NaN];

/**
 * True light: follows every ray of a picture through its shapes. The same picture gives the same bits wherever it is
 * traced, whoever traces which tile.
 *
 * @example
 * const tracer = new Tracer();
 * tracer.load(picture, { width: 320, height: 240, bounces: 6, brightest: Infinity, grain: 0 });
 * const sums = tracer.samples({ x: 0, y: 0, width: 320, height: 240 }, 0, 16);
 */
export class Tracer {
  private readonly memory = new TraceMemory();
  private nodeBase = 0;
  private packetBase = 0;
  private nodes = 0;
  private packets = 0;
  private mark = 0;

  /** Bytes that the scene takes. */
  get bytes(): number {
    return this.memory.used;
  }

  /**
   * Lays a picture out in memory and builds its trees.
   *
   * @throws SceneTooLarge
   */
  load(picture: PictureAt<Mesh>, settings: TraceSettings): void {
    const { memory } = this;
    memory.release();
    const shapes = shapesOf(picture);
    const triangles = shapes.reduce((n, m) => n + drawTopologyOf(m.connectivity).triangles.length / 3, 0);
    const standing = picture.ribbons.reduce((n, { shape }) => n + (shape.copies?.source.length ?? 1), 0);
    // A node has more than four things below it, or is the first of its tree.
    this.nodeBase = memory.room(NODE * (2 + shapes.length + Math.ceil(triangles / 3) + Math.ceil(standing / 3)));
    this.packetBase = memory.room(PACKET * (triangles + 1));
    // The tree over everything that stands there comes first: a ray begins at node 0.
    this.nodes = 2 + Math.ceil(standing / 3);
    this.packets = 0;
    const shapeTable = memory.room(4 * MESH_NUMBERS * shapes.length);
    const placed = new Map(shapes.map((m, i) => [m, this.place(m, i, shapeTable)]));
    const wardrobe = [...picture.wardrobe.entries()];
    const blocks = new Map(wardrobe.map(([id], i) => [id, i * SLOTS]));
    const surfaces = memory.room(Math.max(1, wardrobe.length) * SLOTS * 128);
    wardrobe.forEach(([, s], i) => memory.floats(surfaces + i * SLOTS * 128, SLOTS * 32).set(surfaceBlock(s)));
    const copies = standingIn(picture, placed, blocks);
    const at = this.stand(copies);
    const lamps = lampsOf(picture.scene.lights);
    const sky = skyOf(picture.scene.lights);
    const lampTable = memory.put(writeLamps(lamps));
    const skyTable = sky ? memory.put(sky.light) : 0;
    const rows = sky ? memory.put(sky.rows) : 0;
    const columns = sky ? memory.put(sky.columns) : 0;
    const camera = this.camera(picture, settings, sky?.turn ?? [1, 0, 0, 0, 1, 0, 0, 0, 1]);
    const table = memory.put(
      Uint32Array.of(
        this.nodeBase,
        this.packetBase,
        at.order,
        at.table,
        shapeTable,
        surfaces,
        lampTable,
        lamps.length,
        skyTable,
        sky?.width ?? 0,
        sky?.height ?? 0,
        rows,
        columns,
        camera,
        copies.length,
        wardrobe.some(([, s]) => Object.values(s).some(letsThrough)) ? 1 : 0,
      ),
    );
    memory.run.takeScene(table);
    this.mark = memory.mark;
  }

  /**
   * Samples `first` up to, without, `end` of the pixels of a tile.
   *
   * @param before sums of the samples before, to be added to
   * @returns SUMS numbers a pixel, rows from the top
   */
  samples({ x, y, width, height }: Tile, first: number, end: number, before?: Float64Array): Float64Array {
    const { memory } = this;
    memory.release(this.mark);
    const count = SUMS * width * height;
    const at = memory.room(8 * count);
    const sums = memory.doubles(at, count);
    if (before) sums.set(before);
    else sums.fill(0);
    memory.run.addSamples(x, y, width, height, first, end, at);
    return memory.doubles(at, count).slice();
  }

  /**
   * The nearest triangles that rays meet.
   *
   * @param rays place and direction, 6 numbers a ray
   * @returns how far, in lengths of the direction, −1 where there is nothing, and which copy and triangle, −1 for none
   */
  trace(rays: Float32Array, any = false): { readonly far: Float32Array; readonly which: Int32Array } {
    const { memory } = this;
    memory.release(this.mark);
    const count = rays.length / 6;
    const at = memory.put(rays);
    const out = memory.room(12 * count);
    memory.run.trace(at, count, out, any);
    const numbers = memory.floats(out, 3 * count);
    const whole = new Int32Array(numbers.buffer, out, 3 * count);
    const [far, which] = [new Float32Array(count), new Int32Array(2 * count)];
    for (let i = 0; i < count; i++) {
      far[i] = numbers[3 * i];
      which[2 * i] = whole[3 * i + 1];
      which[2 * i + 1] = whole[3 * i + 2];
    }
    return { far, which };
  }

  /** Puts a shape there with its tree. */
  private place(mesh: Mesh, shape: number, shapeTable: number): Placed {
    const { memory } = this;
    const { triangles, groups } = drawTopologyOf(mesh.connectivity);
    const { positions, normals } = drawBuffers(mesh);
    const count = triangles.length / 3;
    const kinds = new Uint8Array(count);
    for (const { slot, start, count: n } of groups) kinds.fill(slot, start / 3, (start + n) / 3);
    const row = [memory.put(normals), memory.put(triangles), memory.put(kinds), memory.put(positions)];
    memory.whole(shapeTable + 4 * MESH_NUMBERS * shape, MESH_NUMBERS).set(row);
    const box = { low: [Infinity, Infinity, Infinity], high: [-Infinity, -Infinity, -Infinity] };
    const root = this.nodes;
    if (count === 0) return { shape, root: -1, ...box };
    // What the tree is built from is not needed after it.
    const mark = memory.mark;
    const boxes = memory.room(BOX * count);
    const corners = memory.room(CORNERS * count);
    const order = memory.room(4 * count);
    const [b, c] = [memory.floats(boxes, 8 * count), memory.floats(corners, 12 * count)];
    for (let t = 0; t < count; t++)
      for (let k = 0; k < 3; k++) {
        let [low, high] = [Infinity, -Infinity];
        for (let v = 0; v < 3; v++) {
          const x = positions[3 * triangles[3 * t + v] + k];
          c[12 * t + 4 * v + k] = x;
          low = Math.min(low, x);
          high = Math.max(high, x);
        }
        b[8 * t + k] = low;
        b[8 * t + 4 + k] = high;
        box.low[k] = Math.min(box.low[k], low);
        box.high[k] = Math.max(box.high[k], high);
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
    return { shape, root, ...box };
  }

  /** Puts what stands there in memory, with the tree over it. */
  private stand(copies: readonly Standing[]): { readonly order: number; readonly table: number } {
    const { memory } = this;
    const count = copies.length;
    const table = memory.room(4 * COPY_NUMBERS * Math.max(1, count));
    const order = memory.room(4 * Math.max(1, count));
    const numbers = memory.floats(table, COPY_NUMBERS * count);
    const whole = memory.whole(table, COPY_NUMBERS * count);
    copies.forEach(({ placed, matrix, surface, own }, i) => {
      const o = COPY_NUMBERS * i;
      for (let r = 0; r < 3; r++) for (let k = 0; k < 4; k++) numbers[o + 12 + 4 * r + k] = matrix[4 * k + r];
      numbers.set(inverse(matrix), o);
      whole[o + 24] = placed.root;
      whole[o + 25] = placed.shape;
      whole[o + 26] = surface;
      numbers.set(own, o + 27);
    });
    if (count === 0) return { order, table };
    const mark = memory.mark;
    const boxes = memory.room(BOX * count);
    const b = memory.floats(boxes, 8 * count);
    copies.forEach(({ placed: { low, high }, matrix }, i) => {
      for (let r = 0; r < 3; r++) {
        // The box of a turned box: each of its sides goes to whichever side it makes longer.
        let [from, to] = [matrix[12 + r], matrix[12 + r]];
        for (let k = 0; k < 3; k++) {
          const [x, y] = [matrix[4 * k + r] * low[k], matrix[4 * k + r] * high[k]];
          from += Math.min(x, y);
          to += Math.max(x, y);
        }
        b[8 * i + r] = from;
        b[8 * i + 4 + r] = to;
      }
    });
    memory.run.buildTree(boxes, count, order, this.nodeBase, 0, 0, 0, 0);
    memory.release(mark);
    return { order, table };
  }

  private camera(picture: PictureAt<Mesh>, s: TraceSettings, turn: readonly number[]): number {
    const { camera, backdrop } = picture.scene;
    const view = projectionOf(camera, picture.aspect, s.width, s.height);
    const origin = view.ray(0, 0);
    const across = view.across(1, 0, 1);
    const down = view.across(0, 1, 1);
    const pixel = Math.hypot(...across);
    const offset = view.ahead.map((a, k) =>
      camera.parallel === 0 ? origin.way[k] - a : origin.from[k] - camera.position[k],
    );
    // Where the camera looks, in pixels: what is to the right of the corner's ray by nothing.
    const middle = [across, down].map((v) => -offset.reduce((sum, x, k) => sum + x * v[k], 0) / pixel ** 2);
    const behind = behindOf(picture, s);
    const numbers = new Float32Array(CAMERA_NUMBERS + behind.length);
    numbers.set([
      ...camera.position,
      ...across.map((x) => x / pixel),
      ...down.map((x) => -x / pixel),
      ...view.ahead,
      ...middle,
      pixel,
      camera.parallel > 0 ? 1 : 0,
      camera.lensRadius,
      camera.focusDistance,
      camera.blades,
      0,
      s.brightest,
      backdrop.type === 'round' ? 1 : 0,
    ]);
    const whole = new Uint32Array(numbers.buffer);
    whole[19] = s.bounces;
    whole[22] = s.grain;
    numbers[23] = camera.exposure;
    numbers.set(turn, 32);
    numbers.set(behind, CAMERA_NUMBERS);
    return this.memory.put(numbers);
  }
}

/** The shapes of a picture, each once. */
function shapesOf(picture: PictureAt<Mesh>): readonly Mesh[] {
  return [...new Set(picture.ribbons.flatMap(({ shape }) => shape.copies?.sources ?? [shape]))];
}

/** Everything that stands in a picture. */
function standingIn(
  picture: PictureAt<Mesh>,
  placed: ReadonlyMap<Mesh, Placed>,
  blocks: ReadonlyMap<string, number>,
): readonly Standing[] {
  const out: Standing[] = [];
  for (const { id, shape } of picture.ribbons) {
    const surface = blocks.get(id) ?? 0;
    const { copies } = shape;
    if (!copies) {
      const p = placed.get(shape)!;
      if (p.root >= 0) out.push({ placed: p, matrix: IDENTITY, surface, own: NONE });
      continue;
    }
    for (let i = 0; i < copies.source.length; i++) {
      const p = placed.get(copies.sources[copies.source[i]])!;
      const matrix = copies.matrices.subarray(16 * i, 16 * i + 16);
      if (p.root < 0 || !(Math.abs(volume(matrix)) > 1e-30)) continue;
      const worn = copies.wears?.[i] ?? 0;
      const wearer = worn > 0 ? copies.wardrobe?.[worn - 1] : undefined;
      out.push({
        placed: p,
        matrix,
        surface: wearer === undefined ? surface : (blocks.get(wearer) ?? surface),
        own: ownOf(copies, i),
      });
    }
  }
  return out;
}

/** What a copy has of its own: base colour as light, roughness, metalness; not a number where it has none. */
function ownOf({ channels }: Copies, i: number): readonly number[] {
  if (!channels) return NONE;
  const { baseColor, roughness, metalness } = channels;
  const colour = [0, 1, 2].map((k) => (baseColor ? displayToLight(baseColor[3 * i + k]) : NaN));
  return [...colour, roughness?.[i] ?? NaN, metalness?.[i] ?? NaN];
}

function volume(m: ArrayLike<number>): number {
  return m[0] * (m[5] * m[10] - m[9] * m[6]) - m[4] * (m[1] * m[10] - m[9] * m[2]) + m[8] * (m[1] * m[6] - m[5] * m[2]);
}

/** The inverse of a matrix by columns, 12 numbers by rows. */
function inverse(m: ArrayLike<number>): number[] {
  const d = 1 / volume(m);
  const rows = [
    [(m[5] * m[10] - m[9] * m[6]) * d, (m[8] * m[6] - m[4] * m[10]) * d, (m[4] * m[9] - m[8] * m[5]) * d],
    [(m[9] * m[2] - m[1] * m[10]) * d, (m[0] * m[10] - m[8] * m[2]) * d, (m[8] * m[1] - m[0] * m[9]) * d],
    [(m[1] * m[6] - m[5] * m[2]) * d, (m[4] * m[2] - m[0] * m[6]) * d, (m[0] * m[5] - m[4] * m[1]) * d],
  ];
  return rows.flatMap((r) => [...r, -(r[0] * m[12] + r[1] * m[13] + r[2] * m[14])]);
}
