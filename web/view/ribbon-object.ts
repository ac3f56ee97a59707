import type { FinishAt } from '@maypole/core/evaluate/scene';
import { checker, normalViewGeometry, output, renderOutput, uv, vec3, mix } from 'three/tsl';
import { BufferAttribute, BufferGeometry, Color, DoubleSide, Group, LineBasicNodeMaterial, LineSegments, Mesh, MeshBasicNodeMaterial, MeshStandardNodeMaterial, NeutralToneMapping, Points, PointsNodeMaterial, SRGBColorSpace } from 'three/webgpu';
import type { Drawable, ViewMode } from './frame';

const CLAY: FinishAt = { colour: '#C9C2B6', roughness: 0.85, metalness: 0 };
/** Length of the lines that show normals, as a share of the shape's size. */
const NORMAL_LENGTH = 0.012;

/** Sets a colour that is written to the canvas as it is: display values where the renderer expects light. */
export function displayColour(target: Color, hex: string): Color {
  return target.set(hex).convertLinearToSRGB();
}

/** A mesh, its polygon edges and its curves on the same vertices, kept from frame to frame. */
export class RibbonObject {
  readonly group = new Group();
  /** One for each finish the shape's faces have, by its number. */
  private readonly materials = new Map<number, MeshStandardNodeMaterial>();
  private readonly lineMaterial = new LineBasicNodeMaterial({ color: displayColour(new Color(), '#24262B'), transparent: true, opacity: 0.42 });
  private readonly curveMaterial = new LineBasicNodeMaterial();
  private readonly pointMaterial = new PointsNodeMaterial({ color: displayColour(new Color(), '#24262B'), size: 5, sizeAttenuation: false });
  private readonly normalMaterial = new LineBasicNodeMaterial({ color: displayColour(new Color(), '#3A86B7') });
  private readonly uvMaterial = new MeshBasicNodeMaterial({ side: DoubleSide });
  private mesh: Mesh | null = null;
  private edges: LineSegments | null = null;
  private curves: LineSegments | null = null;
  private extra: { mode: ViewMode; shape: string; object: Mesh | Points | LineSegments } | null = null;
  private topology = '';
  private closed = false;
  private shape = '';

  constructor() {
    const place = uv();
    // Tenths in two greys, tinted red towards the right and green towards the top.
    this.uvMaterial.colorNode = mix(vec3(0.86), vec3(place.x.fract().mul(0.7), place.y.fract().mul(0.7), 0.35), checker(place.mul(20)).mul(0.75).add(0.2));
  }

  update(shape: Drawable, finish: FinishAt, mode: ViewMode): void {
    if (shape.topology.key !== this.topology) this.rebuild(shape);
    else if (shape.key !== this.shape) {
      const geometry = this.mesh?.geometry ?? this.curves?.geometry;
      const { position, normal } = (geometry?.attributes ?? {}) as Record<string, BufferAttribute | undefined>;
      if (position) {
        position.array = shape.positions;
        position.needsUpdate = true;
      }
      if (normal) {
        normal.array = shape.normals;
        normal.needsUpdate = true;
      }
    }
    this.shape = shape.key;
    for (const [slot, material] of this.materials) {
      const look = mode === 'clay' ? CLAY : (finish.others?.[slot] ?? finish);
      material.color.set(look.colour);
      material.roughness = look.roughness;
      material.metalness = look.metalness;
    }
    displayColour(this.curveMaterial.color, mode === 'clay' ? '#24262B' : finish.colour);
    if (this.edges) this.edges.visible = mode === 'edges';
    this.showExtra(shape, mode);
    if (this.mesh) this.mesh.visible = !(mode === 'uv' && this.extra);
  }

  dispose(): void {
    this.clear();
    for (const m of [...this.materials.values(), this.lineMaterial, this.curveMaterial, this.pointMaterial, this.normalMaterial, this.uvMaterial]) m.dispose();
  }

  private materialFor(slot: number): MeshStandardNodeMaterial {
    let material = this.materials.get(slot);
    if (!material) {
      material = new MeshStandardNodeMaterial({ side: DoubleSide, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 });
      // Bright light is rolled off on the surface alone, so that the backdrop keeps its exact colour.
      material.outputNode = renderOutput(output, NeutralToneMapping, SRGBColorSpace);
      // Backs of faces have their normals turned to the eye. On a closed form only slivers of them
      // are ever seen, along its outline, and turning those would draw a dark fringe round it.
      material.normalNode = this.closed ? normalViewGeometry : null;
      this.materials.set(slot, material);
    }
    return material;
  }

  private rebuild(shape: Drawable): void {
    this.clear();
    this.topology = shape.topology.key;
    if (shape.topology.closed !== this.closed) {
      this.closed = shape.topology.closed;
      for (const m of this.materials.values()) {
        m.normalNode = this.closed ? normalViewGeometry : null;
        m.needsUpdate = true;
      }
    }
    if (shape.positions.length === 0) return;
    const position = new BufferAttribute(shape.positions, 3);
    const { triangles, groups, lines } = shape.topology;
    if (triangles.length > 0) {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', position);
      geometry.setAttribute('normal', new BufferAttribute(shape.normals, 3));
      geometry.setIndex(new BufferAttribute(triangles, 1));
      groups.forEach((g, i) => geometry.addGroup(g.start, g.count, i));
      this.mesh = new Mesh(geometry, groups.length === 1 ? this.materialFor(groups[0].slot) : groups.map((g) => this.materialFor(g.slot)));
      this.edges = this.segments(position, shape.topology.edges, this.lineMaterial);
      this.group.add(this.mesh, this.edges);
      // The shapes move within the loop, so a box round one frame would cut off the others.
      this.mesh.frustumCulled = false;
    }
    if (lines.length > 0) this.group.add((this.curves = this.segments(position, lines, this.curveMaterial)));
  }

  private segments(position: BufferAttribute, index: Uint32Array, material: LineBasicNodeMaterial): LineSegments {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', position);
    geometry.setIndex(new BufferAttribute(index, 1));
    const out = new LineSegments(geometry, material);
    out.frustumCulled = false;
    return out;
  }

  /** What is only seen on request: made when it is asked for and while the shape is the same. */
  private showExtra(shape: Drawable, mode: ViewMode): void {
    const wanted = mode === 'points' || mode === 'normals' || (mode === 'uv' && shape.topology.uv !== undefined);
    if (this.extra && (this.extra.mode !== mode || this.extra.shape !== shape.key)) {
      this.group.remove(this.extra.object);
      this.extra.object.geometry.dispose();
      this.extra = null;
    }
    if (!wanted || this.extra || shape.positions.length === 0) return;
    const geometry = new BufferGeometry();
    let object: Mesh | Points | LineSegments;
    if (mode === 'points') {
      geometry.setAttribute('position', new BufferAttribute(shape.positions.slice(), 3));
      object = new Points(geometry, this.pointMaterial);
    } else if (mode === 'normals') {
      geometry.setAttribute('position', new BufferAttribute(normalLines(shape), 3));
      object = new LineSegments(geometry, this.normalMaterial);
    } else {
      const { triangles, uv: places } = shape.topology;
      const corners = new Float32Array(3 * triangles.length);
      triangles.forEach((v, i) => corners.set(shape.positions.subarray(3 * v, 3 * v + 3), 3 * i));
      geometry.setAttribute('position', new BufferAttribute(corners, 3));
      geometry.setAttribute('uv', new BufferAttribute(places!, 2));
      object = new Mesh(geometry, this.uvMaterial);
    }
    object.frustumCulled = false;
    this.group.add(object);
    this.extra = { mode, shape: shape.key, object };
  }

  private clear(): void {
    for (const o of [this.mesh, this.edges, this.curves, this.extra?.object]) o?.geometry.dispose();
    this.group.clear();
    this.mesh = null;
    this.edges = null;
    this.curves = null;
    this.extra = null;
  }
}

/** A short line from each vertex along its normal. */
function normalLines({ positions: p, normals: n }: Drawable): Float32Array {
  let reach = 0;
  for (const x of p) reach = Math.max(reach, Math.abs(x));
  const out = new Float32Array(2 * p.length);
  for (let i = 0; i < p.length; i += 3)
    for (let k = 0; k < 3; k++) {
      out[2 * i + k] = p[i + k];
      out[2 * i + 3 + k] = p[i + k] + NORMAL_LENGTH * 2 * reach * n[i + k];
    }
  return out;
}
