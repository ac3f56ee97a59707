import { checker, uv, vec3, mix } from 'three/tsl';
import { CHANNEL_WIDTH, copyChannels, type CopyChannel } from '@maypole/core/shape/copy-channels';
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  DynamicDrawUsage,
  Group,
  InstancedBufferAttribute,
  InstancedMesh,
  LineSegments,
  Mesh,
  MeshBasicNodeMaterial,
  Points,
  type LineBasicNodeMaterial,
  type Object3D,
  type PointsNodeMaterial,
} from 'three/webgpu';
import { displayToLight } from '@maypole/core/maths/srgb';
import { boundsOf } from '@maypole/core/shape/measure';
import type { DrawablePart, ViewMode } from '../stage/frame';
import type { RibbonMaterials } from '../surfaces/ribbon-materials';
import { PATTERN_ATTRIBUTES } from '../patterns/surface-hit';
import { COPY_ATTRIBUTES } from '../surfaces/surface-material';
import { DotObject } from './dots';
import { FieldObject } from '../fields/field-object';
import { WireObject } from './wires';
import { splitTriples, uvSplit, type UvSplit } from './uv-split';

/** Length of displayed normals, relative to the shape's size; copies look smaller. */
const NORMAL_LENGTH = 0.018;
const NORMAL_LENGTH_OF_COPIES = 0.06;

/** View modes that show the structure of a shape. */
const AS_FACES: readonly ViewMode[] = ['edges', 'points', 'normals', 'uv'];

/** Materials of what is only shown on request. */
export interface ExtraMaterials {
  readonly point: PointsNodeMaterial;
  readonly normal: LineBasicNodeMaterial;
  readonly uv: MeshBasicNodeMaterial;
}

/** Tenths in two greys, tinted red towards the right and green towards the top. */
export function uvMaterial(): MeshBasicNodeMaterial {
  const material = new MeshBasicNodeMaterial({ side: DoubleSide });
  const place = uv();
  material.colorNode = mix(
    vec3(0.86),
    vec3(place.x.fract().mul(0.7), place.y.fract().mul(0.7), 0.35),
    checker(place.mul(20)).mul(0.75).add(0.2),
  );
  return material;
}

/** Objects with instanced drawing. */
type Instanced = Object3D & {
  isInstancedMesh: true;
  instanceMatrix: InstancedBufferAttribute;
  instanceColor: null;
  count: number;
};

/**
 * One shape with its polygon edges and curves on shared vertices, reused from frame to frame; drawn once, or instanced.
 */
export class PartObject {
  readonly group = new Group();
  mesh: Mesh | null = null;
  private edges: LineSegments | null = null;
  private curves: LineSegments | null = null;
  private wires: WireObject | null = null;
  private dots: DotObject | null = null;
  /** How often instances were updated. */
  private placings = 0;
  private marched: FieldObject | null = null;
  private extra: { mode: ViewMode; shape: string; object: Mesh | Points | LineSegments } | null = null;
  private matrices: InstancedBufferAttribute | null = null;
  private copyAt: InstancedBufferAttribute | null = null;
  private copyId: InstancedBufferAttribute | null = null;
  private split: UvSplit | null = null;
  private readonly own = new Map<CopyChannel, InstancedBufferAttribute>();
  /** Key of the shape whose buffers are on the device. */
  shape = '';
  /** Indices of the drawn instances, for picking. */
  numbers: Uint32Array | null = null;

  /** @param within seen from inside, so that back faces are drawn though it is closed */
  constructor(
    readonly topology: string,
    private readonly room: number,
    private readonly kind: string,
    part: DrawablePart,
    private readonly materials: RibbonMaterials,
    private readonly extras: ExtraMaterials,
    private readonly within = false,
  ) {
    this.build(part);
  }

  /** Whether it can show a part: the same topology, and room for as many copies. */
  fits(part: DrawablePart): boolean {
    const count = part.instances?.numbers.length ?? 0;
    return (
      part.topology.key === this.topology &&
      kindOf(part) === this.kind &&
      (part.instances ? count <= this.room && count * 4 >= this.room / 2 : true)
    );
  }

  update(part: DrawablePart, mode: ViewMode, changed: boolean): void {
    if (part.key !== this.shape) {
      const geometry = this.mesh?.geometry ?? this.curves?.geometry;
      const { position, normal } = (geometry?.attributes ?? {}) as Record<string, BufferAttribute | undefined>;
      if (position) this.write(position, part.positions);
      if (normal) this.write(normal, part.normals);
      const crevice = geometry?.attributes[PATTERN_ATTRIBUTES.crevice] as BufferAttribute | undefined;
      if (crevice && part.occlusion) {
        crevice.array = this.splitOne(part.occlusion);
        crevice.needsUpdate = true;
      }
      this.shape = part.key;
    }
    if (part.instances && changed) this.place(part.instances);
    if (this.edges) this.edges.visible = mode === 'edges';
    this.showExtra(part, mode);
    if (changed && part.instances) this.placings++;
    this.showWires(part);
    this.showDots(part);
    const { faces } = this.materials;
    if (this.mesh) this.mesh.visible = !(mode === 'uv' && this.extra) && faces !== 'none';
    if (this.curves) this.curves.visible = !this.wires;
    this.showField(part, mode);
  }

  dispose(): void {
    for (const o of [this.mesh, this.edges, this.curves, this.extra?.object]) o?.geometry.dispose();
    this.wires?.dispose();
    this.dots?.dispose();
    this.marched?.dispose();
    if (this.mesh instanceof InstancedMesh) this.mesh.dispose();
    this.group.clear();
  }

  /** Writes moved vertices, including those duplicated for uv seams. */
  private write(attribute: BufferAttribute, values: Float32Array): void {
    if (this.split) splitTriples(values, this.split, attribute.array as Float32Array);
    else if (attribute.array === values) return;
    else attribute.array = values;
    attribute.needsUpdate = true;
  }

  /** One number per vertex, including duplicated ones. */
  private splitOne(values: Float32Array): Float32Array {
    if (!this.split) return values;
    const { more } = this.split;
    const out = new Float32Array(values.length + more.length);
    out.set(values);
    for (let i = 0; i < more.length; i++) out[values.length + i] = values[more[i]];
    return out;
  }

  private place({ numbers, matrices, channels, order, ids }: NonNullable<DrawablePart['instances']>): void {
    const n = numbers.length;
    this.numbers = numbers;
    put(this.matrices!, matrices);
    if (this.copyAt && this.copyId) {
      const [at, id] = [this.copyAt.array as Float32Array, this.copyId.array as Float32Array];
      for (let i = 0; i < n; i++) {
        for (let k = 0; k < 3; k++) at[4 * i + k] = matrices[16 * i + 12 + k];
        at[4 * i + 3] = order[i];
        id[i] = ids[i];
      }
      this.copyAt.needsUpdate = this.copyId.needsUpdate = true;
    }
    for (const o of [this.mesh, this.edges, this.curves, this.extra?.object] as (Instanced | null)[])
      if (o) o.count = n;
    for (const [channel, attribute] of this.own) {
      const values = channels?.[channel];
      if (!values) continue;
      writeChannel(attribute.array as Float32Array, values, CHANNEL_WIDTH[channel], n);
      attribute.needsUpdate = true;
    }
  }

  /** Wires, if the finish has them. */
  private showWires(part: DrawablePart): void {
    const look = this.materials.wires;
    if (!look || part.positions.length === 0) {
      if (!this.wires) return;
      this.group.remove(this.wires.group);
      this.wires.dispose();
      this.wires = null;
      return;
    }
    if (!this.wires) this.group.add((this.wires = new WireObject(this.materials.wireLook)).group);
    this.wires.update(part, `${part.key}/${this.placings}`, look.hidden > 0);
  }

  /** Dots, if the finish has them. */
  private showDots(part: DrawablePart): void {
    const look = this.materials.dots;
    if (!look || part.positions.length === 0) {
      if (!this.dots) return;
      this.group.remove(this.dots.mesh);
      this.dots.dispose();
      this.dots = null;
      return;
    }
    if (!this.dots) this.group.add((this.dots = new DotObject(look)).mesh);
    this.dots.update(part, `${part.key}/${this.placings}`);
  }

  /** The distance field in place of its faces, where it is drawn as such. */
  private showField(part: DrawablePart, mode: ViewMode): void {
    const { field, instances } = part;
    const asFaces =
      !field || instances || AS_FACES.includes(mode) || this.materials.wires || this.materials.faces !== 'shown';
    if (this.marched && (asFaces || !this.marched.fits(field))) {
      this.group.remove(this.marched.mesh);
      this.marched.dispose();
      this.marched = null;
    }
    if (asFaces) return;
    if (!this.marched) this.group.add((this.marched = new FieldObject(field, this.materials)).mesh);
    this.marched.update(field);
    if (this.mesh) this.mesh.visible = false;
  }

  private build(part: DrawablePart): void {
    if (part.positions.length === 0) return;
    const { instances } = part;
    if (instances) {
      this.matrices = dynamic(16, this.room);
      for (const c of channelsOf(part)) this.own.set(c, dynamic(COPY_ATTRIBUTES[c].width, this.room));
      this.copyAt = dynamic(4, this.room);
      this.copyId = dynamic(1, this.room);
    }
    const { triangles, groups, lines, uv } = part.topology;
    const closed = part.topology.closed && !this.within;
    const from = { copies: instances !== undefined, uv: uv !== undefined, crevice: part.occlusion !== undefined };
    // Overrides apply to the main finish only.
    const surfaces = groups.map((g) =>
      this.materials.of(g.slot, { closed, channels: g.slot === 0 ? channelsOf(part) : [], from }),
    );
    if (uv && surfaces.some((m) => m.reads.uv)) this.split = uvSplit(part.topology, part.positions.length / 3);
    const triples = (values: Float32Array) =>
      new BufferAttribute(this.split ? splitTriples(values, this.split) : values, 3);
    const position = triples(part.positions);
    if (triangles.length > 0) {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', position);
      geometry.setAttribute('normal', triples(part.normals));
      geometry.setIndex(new BufferAttribute(this.split?.triangles ?? triangles, 1));
      if (part.occlusion && surfaces.some((m) => m.reads.crevice))
        geometry.setAttribute(PATTERN_ATTRIBUTES.crevice, new BufferAttribute(this.splitOne(part.occlusion), 1));
      if (this.split) geometry.setAttribute(PATTERN_ATTRIBUTES.uv, new BufferAttribute(this.split.uv, 2));
      for (const [c, attribute] of this.own) geometry.setAttribute(COPY_ATTRIBUTES[c].name, attribute);
      if (this.copyAt) geometry.setAttribute(PATTERN_ATTRIBUTES.copyAt, this.copyAt);
      if (this.copyId) geometry.setAttribute(PATTERN_ATTRIBUTES.copyId, this.copyId);
      groups.forEach((g, i) => geometry.addGroup(g.start, g.count, i));
      const list = surfaces.map((s) => s.material);
      const material = list.length === 1 ? list[0] : list;
      this.mesh = this.matrices ? new InstancedMesh(geometry, material, 0) : new Mesh(geometry, material);
      if (this.matrices) (this.mesh as InstancedMesh).instanceMatrix = this.matrices;
      this.edges = this.segments(position, part.topology.edges, this.materials.line);
      this.group.add(this.mesh, this.edges);
      this.mesh.castShadow = list.every((m) => !m.userData.clear);
      this.mesh.receiveShadow = true;
      // Shapes move within the loop, so bounds of one frame would cull the others.
      this.mesh.frustumCulled = false;
    }
    if (lines.length > 0) this.group.add((this.curves = this.segments(position, lines, this.materials.curve)));
  }

  /** Lines and points are instanced like meshes. */
  private repeat<T extends Mesh | Points | LineSegments>(object: T): T {
    object.frustumCulled = false;
    if (this.matrices)
      Object.assign(object, {
        isInstancedMesh: true,
        instanceMatrix: this.matrices,
        instanceColor: null,
        count: this.numbers?.length ?? 0,
      });
    return object;
  }

  private segments(position: BufferAttribute, index: Uint32Array, material: LineBasicNodeMaterial): LineSegments {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', position);
    geometry.setIndex(new BufferAttribute(index, 1));
    return this.repeat(new LineSegments(geometry, material));
  }

  /** What is only shown on request: made on demand, while the shape stays the same. */
  private showExtra(part: DrawablePart, mode: ViewMode): void {
    const wanted = mode === 'points' || mode === 'normals' || (mode === 'uv' && part.topology.uv !== undefined);
    if (this.extra && (this.extra.mode !== mode || this.extra.shape !== part.key)) {
      this.group.remove(this.extra.object);
      this.extra.object.geometry.dispose();
      this.extra = null;
    }
    if (!wanted || this.extra || part.positions.length === 0) return;
    const geometry = new BufferGeometry();
    let object: Mesh | Points | LineSegments;
    if (mode === 'points') {
      geometry.setAttribute('position', new BufferAttribute(part.positions.slice(), 3));
      object = new Points(geometry, this.extras.point);
    } else if (mode === 'normals') {
      geometry.setAttribute('position', new BufferAttribute(normalLines(part), 3));
      object = new LineSegments(geometry, this.extras.normal);
    } else {
      const { triangles, uv: places } = part.topology;
      const corners = new Float32Array(3 * triangles.length);
      triangles.forEach((v, i) => corners.set(part.positions.subarray(3 * v, 3 * v + 3), 3 * i));
      geometry.setAttribute('position', new BufferAttribute(corners, 3));
      geometry.setAttribute('uv', new BufferAttribute(places!, 2));
      object = new Mesh(geometry, this.extras.uv);
    }
    this.group.add(this.repeat(object));
    this.extra = { mode, shape: part.key, object };
  }
}

/** Channels that a part's copies override, in a fixed order. */
function channelsOf({ instances }: DrawablePart): CopyChannel[] {
  return copyChannels.filter((c) => instances?.channels?.[c]);
}

/** What a part needs of its materials; parts that differ in it cannot replace each other. */
export function kindOf(part: DrawablePart): string {
  const crevices = part.occlusion ? ' crevices' : '';
  return (
    (part.instances ? `copies ${channelsOf(part).join()} ${part.instances.materialRibbon ?? ''}` : 'one') + crevices
  );
}

/** Whether parts of this kind look different without overrides. */
export function hasOwnChannels(part: DrawablePart): boolean {
  return channelsOf(part).length > 0;
}

/**
 * Override values with one more number, 1 if the copy has its own and 0 if the finish holds; colours as linear light.
 */
function writeChannel(out: Float32Array, values: Float32Array, width: number, count: number): void {
  for (let i = 0; i < count; i++) {
    const has = values[width * i] === values[width * i];
    for (let k = 0; k < width; k++)
      out[(width + 1) * i + k] = !has ? 0 : width === 3 ? displayToLight(values[width * i + k]) : values[width * i + k];
    out[(width + 1) * i + width] = has ? 1 : 0;
  }
}

function dynamic(width: number, room: number): InstancedBufferAttribute {
  const attribute = new InstancedBufferAttribute(new Float32Array(width * room), width);
  attribute.setUsage(DynamicDrawUsage);
  return attribute;
}

function put(attribute: InstancedBufferAttribute, values: Float32Array): void {
  (attribute.array as Float32Array).set(values);
  attribute.needsUpdate = true;
}

/** A short line from each vertex along its normal. */
function normalLines({ positions: p, normals: n, instances }: DrawablePart): Float32Array {
  const box = boundsOf(p)!;
  const size = Math.max(...box.max.map((x, k) => x - box.min[k]));
  const length = size * (instances ? NORMAL_LENGTH_OF_COPIES : NORMAL_LENGTH);
  const out = new Float32Array(2 * p.length);
  for (let i = 0; i < p.length; i += 3)
    for (let k = 0; k < 3; k++) {
      out[2 * i + k] = p[i + k];
      out[2 * i + 3 + k] = p[i + k] + length * n[i + k];
    }
  return out;
}
