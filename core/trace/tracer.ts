import type { PictureAt } from '../evaluate/picture-at';
import { isIdentity, putInverseRows } from '../maths/matrix';
import type { Vec3 } from '../maths/vec3';
import { distanceAhead } from '../scene/lens';
import { projectionOf } from '../scene/projection';
import type { DistanceField } from '../shape/fractals/field';
import { FINISH, type Mesh } from '../shape/mesh';
import { behindOf, pictureBehind } from './behind';
import { asksForCrevices, drawnOf, type Drawn } from './drawn';
import { glowsOf } from './glows';
import { lampsOf, writeLamps } from './lamps';
import type { PixelSize } from './marched';
import { TraceMemory } from './memory';
import { overlayBlock, overlaysOf } from './overlay';
import { passNumbers } from './pass-numbers';
import { extentOf, roomBlock } from './room';
import { placeSky, skyTurn, type PlacedSky } from './sky';
import { NOTHING, ShapeRoom, type Grown, type Known, type Placed } from './shapes';
import { boxOf, putBox, single, standingIn, type Standing } from './standing';
import { letsThrough, SURFACE_NUMBERS, surfaceBlock } from './surfaces';
import { sweepDrawn, sweepMatrix, sweepSurfaces } from './sweep';
import { fieldsUnder, TileTracer, type LentScene, type Told } from './tile-tracer';

/** How a picture is traced. */
export interface TraceSettings {
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  /** Surfaces of each kind that a path goes on from at most; with none, light comes straight from lamps. */
  readonly bounces: Bounces;
  /** The brightest that light from the second surface on may be, before exposure; Infinity for no limit. */
  readonly brightest: number;
  /** By what grain is told: the frame reduced by the loop where it moves, one number where it stands. */
  readonly grain: number;
  /**
   * The error of a pixel's brightness up to which it gets no more samples, as a share of it and a twentieth of white:
   * a hundredth is hardly seen. Absent, all pixels get as many.
   */
  readonly error?: number;
  /** Samples that a pixel has before its error is looked at. */
  readonly least?: number;
  /** What else there is to tell of a pixel is kept: see passes.ts. */
  readonly passes?: boolean;
}

/** Bounces of a kind that may be asked for at most. */
export const MOST_BOUNCES = 64;

/** Surfaces that a path goes on from at most, by what sends it on: what is matt, a mirror, glass. */
export interface Bounces {
  readonly matt: number;
  readonly glossy: number;
  readonly glass: number;
  /** After so many of all kinds light in the air is still looked for; 0 for what is seen straight. */
  readonly air: number;
}

/** As many of each kind of surface, and light in the air after any of them. */
export function bouncesOf(count: number): Bounces {
  return { matt: count, glossy: count, glass: 2 * count, air: MOST_BOUNCES };
}

const COPY_NUMBERS = 36;
const CAMERA_NUMBERS = 41;
/** Of a picture behind everything: where it is, its size, the places of pixels in it, and a factor on its light. */
const PICTURE_NUMBERS = 10;
/** Kinds of faces a surface block has. */
const SLOTS = Object.keys(FINISH).length;

/**
 * True light: follows every ray of a picture through its shapes. The same picture gives the same bits wherever it is
 * traced, whoever traces which tile.
 *
 * @example
 * const tracer = new Tracer();
 * tracer.load(picture, { width: 320, height: 240, bounces: bouncesOf(6), brightest: Infinity, grain: 0 });
 * const sums = tracer.samples({ x: 0, y: 0, width: 320, height: 240 }, 0, 16);
 */
export class Tracer extends TileTracer {
  private told: Told | undefined;
  private sky: PlacedSky | undefined;
  private table = 0;
  /** What stands there, by the numbers that `trace` tells. */
  standing: readonly Standing[] = [];
  private room: ShapeRoom | undefined;
  private placed: ReadonlyMap<Mesh, Placed> = new Map();
  /** Which shape a ribbon has, by the ribbon and the number of the shape among its own. */
  private named: ReadonlyMap<string, Mesh> = new Map();

  /** @param threads how many are to trace its pictures, this one among them */
  constructor(threads = 1) {
    super(new TraceMemory(threads));
  }

  /** Bytes that the scene takes. */
  get bytes(): number {
    return this.memory.used;
  }

  /**
   * Lays a picture out in memory and builds its trees. Shapes that were in the picture before keep theirs.
   *
   * @param first the same piece at the first instant of an exposure: what stands still since then has its tree from
   * there, and what only moves its corners has it refitted
   * @throws SceneTooLarge
   */
  load(picture: PictureAt<Mesh>, settings: TraceSettings, first?: Tracer): void {
    const named = namedShapes(picture);
    const known = this.known(named, first);
    this.placed = new Map();
    if (!this.memory.renew()) {
      this.memory = new TraceMemory(this.threads);
      this.sky = undefined;
    }
    const { memory } = this;
    const { scene } = picture;
    const there = this.sky;
    this.sky = undefined;
    const sky = placeSky(memory, scene.lights, there, first?.sky && { memory: first.memory, sky: first.sky });
    this.sky = sky;
    const drawn = shapesOf(picture);
    const overlays = overlaysOf(picture, settings.width, settings.height);
    const sweeps = scene.ground.filter((g) => g.type === 'sweep').map((g) => ({ g, drawn: sweepDrawn(g) }));
    const count = picture.ribbons.reduce(
      (n, { shape }) => n + (shape.copies?.source.length ?? 1),
      sweeps.length + overlays.length,
    );
    const room = new ShapeRoom(
      memory,
      [...drawn.values(), ...sweeps.map((s) => s.drawn), ...overlays.map((o) => o.drawn)],
      count,
    );
    const pixel = pixelOf(picture, settings);
    const worn = [...picture.wardrobe.values(), ...sweeps.map(({ g }) => sweepSurfaces(g))];
    memory.fields = fieldsUnder(worn, pixel);
    const fields: DistanceField[] = [];
    const placed = new Map(
      [...drawn].map(([mesh, d]) => {
        if (d !== MARCHED) return [mesh, room.place(d, known.get(mesh))];
        fields.push(mesh.field!);
        return [mesh, room.placeField(d, mesh.field!, memory.fields.add(mesh.field!))];
      }),
    );
    const surfaces = memory.room(4 * SURFACE_NUMBERS * SLOTS * Math.max(1, worn.length + overlays.length));
    worn.forEach((s, i) => {
      const block = surfaceBlock(s, (one) => memory.worn.add(one));
      memory.floats(surfaces + 4 * i * block.length, block.length).set(block);
    });
    overlays.forEach((o, i) => {
      const block = overlayBlock(o, SLOTS);
      memory.floats(surfaces + 4 * (worn.length + i) * block.length, block.length).set(block);
    });
    const blocks = new Map([...picture.wardrobe.keys()].map((id, i) => [id, i * SLOTS]));
    const forms = standingIn(picture, placed, blocks);
    const extent = extentOf(forms.map(boxOf));
    const stands = [
      ...forms,
      ...sweeps.map((s, i) => single(room.place(s.drawn), SLOTS * (picture.wardrobe.size + i), sweepMatrix(s.g))),
      ...overlays.map((o, i) => ({
        ...single(room.place(o.drawn), SLOTS * (worn.length + i)),
        ribbon: o.ribbon,
        overlay: i,
      })),
    ].filter((s) => s.placed.root !== NOTHING);
    this.standing = stands;
    room.over(stands.length, (i, to, at, apart) => putBox(stands[i], to, at, apart));
    const copies = this.copies(stands, new Map(picture.ribbons.map(({ id }, i) => [id, i])));
    const lamps = lampsOf(scene.lights);
    this.passSize = settings.passes ? passNumbers(picture.ribbons.length, lamps.length) : 0;
    const glows = glowsOf(
      stands.filter((s) => s.surface < SLOTS * worn.length),
      (surface) => worn[surface / SLOTS],
    );
    const table = new Uint32Array(25);
    table.set([
      room.nodeBase,
      room.packetBase,
      copies,
      room.table,
      surfaces,
      memory.put(writeLamps(lamps)),
      lamps.length,
      sky.light,
      sky.width,
      sky.height,
      sky.rows,
      sky.columns,
      this.camera(picture, settings, skyTurn(scene.lights), focusOf(picture, forms)),
      stands.length,
      overlays.length > 0 || worn.some((s) => Object.values(s).some(letsThrough)) ? 1 : 0,
      memory.put(roomBlock(scene, extent)),
      memory.put(glows.table),
      glows.count,
    ]);
    const numbers = new Float32Array(table.buffer);
    numbers[18] = glows.power;
    numbers.set([sky.power, ...glows.centre, glows.reach ** 2], 20);
    table[19] = picture.ribbons.length;
    this.table = memory.put(table);
    memory.run.takeScene(this.table);
    this.mark = memory.mark;
    this.told = { worn, fields, pixel, passSize: this.passSize };
    this.room = room;
    this.placed = placed;
    this.named = named;
  }

  get threads(): number {
    return this.memory.threads;
  }

  /**
   * What is loaded, for each of the other threads: until the next is.
   *
   * @param pixels that a tile has at most
   * @throws SceneTooLarge
   */
  lend(pixels: number): readonly LentScene[] {
    const lent = this.memory.lend(this.tileBytes(pixels));
    this.mark = this.memory.mark;
    return lent.map((memory) => ({ ...this.told!, memory, table: this.table }));
  }

  /** Trees that need not be built for the shapes of a picture which is about to be loaded. */
  private known(named: ReadonlyMap<string, Mesh>, first: Tracer | undefined): ReadonlyMap<Mesh, Known> {
    const known = new Map<Mesh, Known>();
    for (const [name, mesh] of named) {
      if (known.has(mesh)) continue;
      const grown = this.grown(mesh);
      // A refitted one depends on what it was refitted from, which another exposure need not have.
      const own = grown?.placed.refitted ? undefined : grown;
      const before = first?.named.get(name);
      known.set(mesh, {
        // What lies in this memory is about to be overwritten.
        same: own ? { ...own, nodes: own.nodes.slice(), packets: own.packets.slice() } : first?.grown(mesh),
        like: before && first?.grown(before),
      });
    }
    return known;
  }

  /** The tree of a shape of the picture; its bytes are good until another is loaded. */
  private grown(mesh: Mesh): Grown | undefined {
    const placed = this.placed.get(mesh);
    return placed && this.room!.grown(placed);
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
    const far = memory.floats(out, count).slice();
    const which = new Int32Array(memory.whole(out + 4 * count, 2 * count));
    return { far, which };
  }

  /** For checks: light taken both ways, weighed against each other (0), by asking lamps alone (1), by chance alone (2). */
  takeBy(how: 0 | 1 | 2): void {
    this.memory.run.takeBy(how);
  }

  /** Puts everything that stands there in memory. */
  private copies(all: readonly Standing[], ribbons: ReadonlyMap<string, number>): number {
    const { memory } = this;
    const at = memory.room(4 * COPY_NUMBERS * Math.max(1, all.length));
    const numbers = memory.floats(at, COPY_NUMBERS * all.length);
    const whole = memory.whole(at, COPY_NUMBERS * all.length);
    all.forEach(({ ribbon, placed, matrix, surface, own, order, id }, i) => {
      const o = COPY_NUMBERS * i;
      for (let r = 0; r < 3; r++) for (let k = 0; k < 4; k++) numbers[o + 16 + 4 * r + k] = matrix[4 * k + r];
      putInverseRows(matrix, numbers, o);
      whole.set([placed.root, isIdentity(matrix) ? 1 : 0, placed.shape, surface], o + 12);
      numbers.set(own, o + 28);
      numbers[o + 33] = order;
      whole[o + 34] = id;
      whole[o + 35] = (ribbon === undefined ? undefined : ribbons.get(ribbon)) ?? -1;
    });
    return at;
  }

  private camera(picture: PictureAt<Mesh>, s: TraceSettings, turn: readonly number[], focus: number): number {
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
    const seen = pictureBehind(picture, s);
    const numbers = new Float32Array(CAMERA_NUMBERS + behind.length + PICTURE_NUMBERS);
    numbers.set([
      ...camera.position,
      ...across.map((x) => x / pixel),
      ...down.map((x) => -x / pixel),
      ...view.ahead,
      ...middle,
      pixel,
      camera.parallel > 0 ? 1 : 0,
      camera.lensRadius,
      focus,
      camera.blades,
      0,
      s.brightest,
      backdrop.type === 'round' ? 1 : 0,
    ]);
    const whole = new Uint32Array(numbers.buffer);
    whole[19] = s.bounces.matt;
    whole[22] = s.grain;
    numbers[23] = camera.exposure;
    whole[24] = s.bounces.glossy;
    whole[25] = s.bounces.glass;
    whole[28] = s.bounces.air;
    numbers[26] = s.error ?? 0;
    whole[27] = s.least ?? 0;
    numbers.set(turn, 32);
    numbers.set(behind, CAMERA_NUMBERS);
    if (seen) {
      const at = CAMERA_NUMBERS + behind.length;
      whole.set([this.memory.put(seen.light), seen.width, seen.height], at);
      numbers.set([...seen.place, 1 / camera.exposure], at + 3);
    }
    return this.memory.put(numbers);
  }
}

/** What stands for an endless form, which has no triangles. */
const MARCHED: Drawn = {
  positions: new Float32Array(),
  normals: new Float32Array(),
  triangles: new Uint32Array(),
  kinds: new Uint8Array(),
};

/** The shapes of a picture by ribbon and by number among those of the ribbon. */
function namedShapes({ ribbons }: PictureAt<Mesh>): ReadonlyMap<string, Mesh> {
  return new Map(
    ribbons.flatMap(({ id, shape }) =>
      (shape.copies?.sources ?? [shape]).map((mesh, i) => [`${id}/${i}`, mesh] as const),
    ),
  );
}

/** The shapes of a picture, each once. Forms that stand alone are marched; copies are of the faces that were made of them. */
function shapesOf({ ribbons, wardrobe }: PictureAt<Mesh>): ReadonlyMap<Mesh, Drawn> {
  const deep = new Set<Mesh>();
  const faces = new Set<Mesh>();
  const all = new Set<Mesh>();
  for (const { id, shape } of ribbons) {
    const wearers = [id, ...(shape.copies?.wardrobe ?? [])].flatMap((w) => wardrobe.get(w) ?? []);
    for (const mesh of shape.copies?.sources ?? [shape]) {
      all.add(mesh);
      if (shape.copies || !mesh.field) faces.add(mesh);
      if (wearers.some(asksForCrevices)) deep.add(mesh);
    }
  }
  return new Map([...all].map((mesh) => [mesh, faces.has(mesh) ? drawnOf(mesh, deep.has(mesh)) : MARCHED]));
}

/** Metres that a pixel shows, of what is a metre away and at least. */
function pixelOf({ scene, aspect }: PictureAt<Mesh>, { width, height }: TraceSettings): PixelSize {
  const metres = Math.hypot(...projectionOf(scene.camera, aspect, width, height).across(1, 0, 1));
  return scene.camera.parallel > 0 ? { perMetre: 0, least: metres } : { perMetre: metres, least: 0 };
}

/** Metres ahead to what is sharp: a distance, or the middle of a ribbon that stands there. */
function focusOf({ scene: { camera } }: PictureAt<Mesh>, forms: readonly Standing[]): number {
  const own = camera.focusOn === undefined ? [] : forms.filter((f) => f.ribbon === camera.focusOn);
  if (own.length === 0) return camera.focusDistance;
  return Math.max(0.001, distanceAhead(camera, extentOf(own.map(boxOf)).centre as Vec3));
}
