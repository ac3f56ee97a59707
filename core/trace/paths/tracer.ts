import type { PictureAt } from '../../evaluate/picture-at';
import { isIdentity, putInverseRows } from '../../maths/matrix';
import type { Vec3 } from '../../maths/vec3';
import { distanceAhead } from '../../scene/lens';
import { projectionOf } from '../../scene/projection';
import type { DistanceField } from '../../shape/fractals/field';
import { FINISH, type Mesh } from '../../shape/mesh';
import { backdropRamp, backdropImage } from '../scene/backdrop';
import { needsOcclusion, traceMeshOf, type TraceMesh } from '../scene/trace-mesh';
import { emissiveTrianglesOf } from '../scene/emissive';
import { lampsOf, packLamps } from '../scene/lamps';
import type { PixelSize } from '../scene/distance-fields';
import { TraceMemory } from '../memory/memory';
import { overlayBlock, overlaysOf } from '../scene/overlay';
import { passNumbers } from './pass-numbers';
import { boundingSphereOf, packAtmosphere } from '../scene/atmosphere';
import { placeEnvironment, environmentRotation, type PlacedEnvironment } from '../scene/environment';
import { NO_TREE, MeshStore, type BuiltTree, type ReusableTree, type PlacedMesh } from '../scene/meshes';
import { worldBoxOf, putWorldBox, singleInstance, instancesOf, type Instance } from '../scene/instances';
import { hasTransparency, SURFACE_NUMBERS, packSurfaces } from '../scene/surfaces';
import { sweepDrawn, sweepMatrix, sweepSurfaces } from '../scene/sweep';
import { marchedFieldsFor, TileTracer, type LentScene, type HostScene } from './tile-tracer';

/** How a picture is traced. */
export interface TraceSettings {
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  /** Most bounces of each kind; with none, direct light only. */
  readonly bounces: Bounces;
  /** Most radiance from the second vertex on, before exposure; Infinity for no limit. */
  readonly fireflyClamp: number;
  /** Sampler seed: the frame modulo the loop if the grain moves, a constant if it stands still. */
  readonly seed: number;
  /**
   * Relative error of luminance at which a pixel gets no more samples, relative to luminance plus a twentieth of white;
   * 0.01 is hardly visible. Absent, all pixels get the same number.
   */
  readonly error?: number;
  /** Samples before the error is tested. */
  readonly minSamples?: number;
  /** Collects passes: see passes.ts. */
  readonly passes?: boolean;
}

/** Most bounces of a kind that may be set. */
export const MAX_BOUNCES = 64;

/** Most bounces of a path, by what scatters it. */
export interface Bounces {
  readonly diffuse: number;
  readonly glossy: number;
  readonly transmission: number;
  /** Haze is sampled up to this many bounces; 0 for camera rays only. */
  readonly air: number;
}

/** The same number of each kind of surface, and haze at any bounce. */
export function bouncesOf(count: number): Bounces {
  return { diffuse: count, glossy: count, transmission: 2 * count, air: MAX_BOUNCES };
}

const COPY_NUMBERS = 36;
const CAMERA_NUMBERS = 41;
/** Numbers of a backdrop image: address, size, two rows from pixels to the image, and a factor on its radiance. */
const PICTURE_NUMBERS = 10;
/** Face kinds in a block of surfaces. */
const SLOTS = Object.keys(FINISH).length;

/**
 * The path tracer. Equal pictures give equal bits on every machine, however tiles are distributed.
 *
 * @example
 * const tracer = new Tracer();
 * tracer.load(picture, { width: 320, height: 240, bounces: bouncesOf(6), fireflyClamp: Infinity, seed: 0 });
 * const sums = tracer.samples({ x: 0, y: 0, width: 320, height: 240 }, 0, 16);
 */
export class Tracer extends TileTracer {
  private hostScene: HostScene | undefined;
  private sky: PlacedEnvironment | undefined;
  private table = 0;
  /** Instances, indexed as `trace` reports them. */
  instances: readonly Instance[] = [];
  private meshes: MeshStore | undefined;
  private placed: ReadonlyMap<Mesh, PlacedMesh> = new Map();
  /** Meshes by ribbon and index within the ribbon. */
  private named: ReadonlyMap<string, Mesh> = new Map();

  /** @param threads how many trace its pictures, this one included */
  constructor(threads = 1) {
    super(new TraceMemory(threads));
  }

  /** Bytes that the scene takes. */
  get bytes(): number {
    return this.memory.used;
  }

  /**
   * Lays a picture out in memory and builds its trees. Meshes of the previous picture keep theirs.
   *
   * @param first the first instant of the same exposure: meshes that have not changed since copy its trees, and moved
   * ones refit them
   * @throws SceneTooLarge
   */
  load(picture: PictureAt<Mesh>, settings: TraceSettings, first?: Tracer): void {
    const named = namedMeshes(picture);
    const reusableTrees = this.reusableTrees(named, first);
    this.placed = new Map();
    if (!this.memory.reset()) {
      this.memory = new TraceMemory(this.threads);
      this.sky = undefined;
    }
    const { memory } = this;
    const { scene } = picture;
    const there = this.sky;
    this.sky = undefined;
    const sky = placeEnvironment(memory, scene.lights, there, first?.sky && { memory: first.memory, sky: first.sky });
    this.sky = sky;
    const drawn = meshesOf(picture);
    const overlays = overlaysOf(picture, settings.width, settings.height);
    const sweeps = scene.ground.filter((g) => g.type === 'sweep').map((g) => ({ g, drawn: sweepDrawn(g) }));
    const count = picture.ribbons.reduce(
      (n, { shape }) => n + (shape.copies?.source.length ?? 1),
      sweeps.length + overlays.length,
    );
    const meshes = new MeshStore(
      memory,
      [...drawn.values(), ...sweeps.map((s) => s.drawn), ...overlays.map((o) => o.drawn)],
      count,
    );
    const pixel = pixelOf(picture, settings);
    const materials = [...picture.materials.values(), ...sweeps.map(({ g }) => sweepSurfaces(g))];
    memory.fields = marchedFieldsFor(materials, pixel);
    const fields: DistanceField[] = [];
    const placed = new Map(
      [...drawn].map(([mesh, d]) => {
        if (d !== MARCHED) return [mesh, meshes.place(d, reusableTrees.get(mesh))];
        fields.push(mesh.field!);
        return [mesh, meshes.placeField(d, mesh.field!, memory.fields.add(mesh.field!))];
      }),
    );
    const surfaces = memory.allocate(4 * SURFACE_NUMBERS * SLOTS * Math.max(1, materials.length + overlays.length));
    materials.forEach((s, i) => {
      const block = packSurfaces(s, (one) => memory.patterns.add(one));
      memory.floats(surfaces + 4 * i * block.length, block.length).set(block);
    });
    overlays.forEach((o, i) => {
      const block = overlayBlock(o, SLOTS);
      memory.floats(surfaces + 4 * (materials.length + i) * block.length, block.length).set(block);
    });
    const blocks = new Map([...picture.materials.keys()].map((id, i) => [id, i * SLOTS]));
    const forms = instancesOf(picture, placed, blocks);
    const extent = boundingSphereOf(forms.map(worldBoxOf));
    const instances = [
      ...forms,
      ...sweeps.map((s, i) =>
        singleInstance(meshes.place(s.drawn), SLOTS * (picture.materials.size + i), sweepMatrix(s.g)),
      ),
      ...overlays.map((o, i) => ({
        ...singleInstance(meshes.place(o.drawn), SLOTS * (materials.length + i)),
        ribbon: o.ribbon,
        overlay: i,
      })),
    ].filter((s) => s.placed.root !== NO_TREE);
    this.instances = instances;
    meshes.buildTopLevel(instances.length, (i, to, at, apart) => putWorldBox(instances[i], to, at, apart));
    const copies = this.copies(instances, new Map(picture.ribbons.map(({ id }, i) => [id, i])));
    const lamps = lampsOf(scene.lights);
    this.passSize = settings.passes ? passNumbers(picture.ribbons.length, lamps.length) : 0;
    const glows = emissiveTrianglesOf(
      instances.filter((s) => s.surface < SLOTS * materials.length),
      (surface) => materials[surface / SLOTS],
    );
    const table = new Uint32Array(25);
    table.set([
      meshes.nodeBase,
      meshes.packetBase,
      copies,
      meshes.table,
      surfaces,
      memory.put(packLamps(lamps)),
      lamps.length,
      sky.light,
      sky.width,
      sky.height,
      sky.rows,
      sky.columns,
      this.camera(picture, settings, environmentRotation(scene.lights), focusOf(picture, forms)),
      instances.length,
      overlays.length > 0 || materials.some((s) => Object.values(s).some(hasTransparency)) ? 1 : 0,
      memory.put(packAtmosphere(scene, extent)),
      memory.put(glows.table),
      glows.count,
    ]);
    const numbers = new Float32Array(table.buffer);
    numbers[18] = glows.power;
    numbers.set([sky.power, ...glows.centre, glows.radius ** 2], 20);
    table[19] = picture.ribbons.length;
    this.table = memory.put(table);
    memory.run.loadScene(this.table);
    this.mark = memory.mark;
    this.hostScene = { materials, fields, pixel, passSize: this.passSize };
    this.meshes = meshes;
    this.placed = placed;
    this.named = named;
  }

  get threads(): number {
    return this.memory.threads;
  }

  /**
   * Lends the scene to each of the other threads; valid until the next is loaded.
   *
   * @param pixels most pixels of a tile
   * @throws SceneTooLarge
   */
  lend(pixels: number): readonly LentScene[] {
    const lent = this.memory.lend(this.tileBytes(pixels));
    this.mark = this.memory.mark;
    return lent.map((memory) => ({ ...this.hostScene!, memory, table: this.table }));
  }

  /** Trees that need not be built for a picture about to be loaded. */
  private reusableTrees(named: ReadonlyMap<string, Mesh>, first: Tracer | undefined): ReadonlyMap<Mesh, ReusableTree> {
    const known = new Map<Mesh, ReusableTree>();
    for (const [name, mesh] of named) {
      if (known.has(mesh)) continue;
      const builtTree = this.builtTree(mesh);
      // A refitted tree depends on its origin, which another exposure need not have.
      const own = builtTree?.placed.refitted ? undefined : builtTree;
      const before = first?.named.get(name);
      known.set(mesh, {
        // This memory is about to be overwritten.
        sameMesh: own ? { ...own, nodes: own.nodes.slice(), packets: own.packets.slice() } : first?.builtTree(mesh),
        sameTopology: before && first?.builtTree(before),
      });
    }
    return known;
  }

  /** The tree of a mesh of the picture; its bytes are valid until another is loaded. */
  private builtTree(mesh: Mesh): BuiltTree | undefined {
    const placed = this.placed.get(mesh);
    return placed && this.meshes!.builtTree(placed);
  }

  /**
   * Intersects rays with the scene.
   *
   * @param rays origin and direction, 6 numbers per ray
   * @returns distances in lengths of the direction, −1 for a miss, and instance and triangle, −1 for none
   */
  trace(rays: Float32Array, any = false): { readonly far: Float32Array; readonly which: Int32Array } {
    const { memory } = this;
    memory.release(this.mark);
    const count = rays.length / 6;
    const at = memory.put(rays);
    const out = memory.allocate(12 * count);
    memory.run.trace(at, count, out, any);
    const far = memory.floats(out, count).slice();
    const which = new Int32Array(memory.whole(out + 4 * count, 2 * count));
    return { far, which };
  }

  /** For checks: both strategies weighted (0), light sampling alone (1), BSDF sampling alone (2). */
  setStrategies(how: 0 | 1 | 2): void {
    this.memory.run.setStrategies(how);
  }

  /** Packs all instances. */
  private copies(all: readonly Instance[], ribbons: ReadonlyMap<string, number>): number {
    const { memory } = this;
    const at = memory.allocate(4 * COPY_NUMBERS * Math.max(1, all.length));
    const numbers = memory.floats(at, COPY_NUMBERS * all.length);
    const whole = memory.whole(at, COPY_NUMBERS * all.length);
    all.forEach(({ ribbon, placed, matrix, surface, overrides: own, order, id }, i) => {
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
    // The pixel in the middle of the camera's view, where the offset of the corner's ray vanishes.
    const middle = [across, down].map((v) => -offset.reduce((sum, x, k) => sum + x * v[k], 0) / pixel ** 2);
    const behind = backdropRamp(picture, s);
    const seen = backdropImage(picture, s);
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
      s.fireflyClamp,
      backdrop.type === 'round' ? 1 : 0,
    ]);
    const whole = new Uint32Array(numbers.buffer);
    whole[19] = s.bounces.diffuse;
    whole[22] = s.seed;
    numbers[23] = camera.exposure;
    whole[24] = s.bounces.glossy;
    whole[25] = s.bounces.transmission;
    whole[28] = s.bounces.air;
    numbers[26] = s.error ?? 0;
    whole[27] = s.minSamples ?? 0;
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

/** Stands for a distance field, which has no triangles. */
const MARCHED: TraceMesh = {
  positions: new Float32Array(),
  normals: new Float32Array(),
  triangles: new Uint32Array(),
  kinds: new Uint8Array(),
};

/** Meshes of a picture by ribbon and index within the ribbon. */
function namedMeshes({ ribbons }: PictureAt<Mesh>): ReadonlyMap<string, Mesh> {
  return new Map(
    ribbons.flatMap(({ id, shape }) =>
      (shape.copies?.sources ?? [shape]).map((mesh, i) => [`${id}/${i}`, mesh] as const),
    ),
  );
}

/** Distinct meshes of a picture. A single distance field is marched; copies of it use its triangles. */
function meshesOf({ ribbons, materials }: PictureAt<Mesh>): ReadonlyMap<Mesh, TraceMesh> {
  const deep = new Set<Mesh>();
  const faces = new Set<Mesh>();
  const all = new Set<Mesh>();
  for (const { id, shape } of ribbons) {
    const used = [id, ...(shape.copies?.materialRibbons ?? [])].flatMap((w) => materials.get(w) ?? []);
    for (const mesh of shape.copies?.sources ?? [shape]) {
      all.add(mesh);
      if (shape.copies || !mesh.field) faces.add(mesh);
      if (used.some(needsOcclusion)) deep.add(mesh);
    }
  }
  return new Map([...all].map((mesh) => [mesh, faces.has(mesh) ? traceMeshOf(mesh, deep.has(mesh)) : MARCHED]));
}

/** Width of a pixel in metres: per metre of distance, and at least. */
function pixelOf({ scene, aspect }: PictureAt<Mesh>, { width, height }: TraceSettings): PixelSize {
  const metres = Math.hypot(...projectionOf(scene.camera, aspect, width, height).across(1, 0, 1));
  return scene.camera.parallel > 0 ? { perMetre: 0, minWidth: metres } : { perMetre: metres, minWidth: 0 };
}

/** Focus distance in metres: as set, or to the centre of a ribbon. */
function focusOf({ scene: { camera } }: PictureAt<Mesh>, forms: readonly Instance[]): number {
  const own = camera.focusOn === undefined ? [] : forms.filter((f) => f.ribbon === camera.focusOn);
  if (own.length === 0) return camera.focusDistance;
  return Math.max(0.001, distanceAhead(camera, boundingSphereOf(own.map(worldBoxOf)).centre as Vec3));
}
