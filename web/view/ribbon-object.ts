import type { FinishAt } from '@maypole/core/evaluate/scene';
import { normalViewGeometry, output, renderOutput } from 'three/tsl';
import { BufferAttribute, BufferGeometry, Color, DoubleSide, Group, LineBasicNodeMaterial, LineSegments, Mesh, MeshStandardNodeMaterial, NeutralToneMapping, SRGBColorSpace } from 'three/webgpu';
import type { Drawable, ViewMode } from './frame';

const CLAY = { colour: '#C9C2B6', roughness: 0.85, metalness: 0 } as const;

/** Sets a colour that is written to the canvas as it is: display values where the renderer expects light. */
export function displayColour(target: Color, hex: string): Color {
  return target.set(hex).convertLinearToSRGB();
}

/** A mesh and its polygon edges on the same vertices, kept from frame to frame. */
export class RibbonObject {
  readonly group = new Group();
  private readonly material = new MeshStandardNodeMaterial({ side: DoubleSide, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 });
  private readonly lineMaterial = new LineBasicNodeMaterial({ color: displayColour(new Color(), '#24262B'), transparent: true, opacity: 0.42 });
  private mesh: Mesh | null = null;
  private lines: LineSegments | null = null;
  private topology = '';
  private closed = false;
  private shape = '';

  constructor() {
    // Bright light is rolled off on the surface alone, so that the backdrop keeps its exact colour.
    this.material.outputNode = renderOutput(output, NeutralToneMapping, SRGBColorSpace);
  }

  update(shape: Drawable, finish: FinishAt, mode: ViewMode): void {
    if (shape.topology.key !== this.topology) this.rebuild(shape);
    else if (shape.key !== this.shape && this.mesh) {
      const { position, normal } = this.mesh.geometry.attributes as Record<string, BufferAttribute>;
      position.array = shape.positions;
      normal.array = shape.normals;
      position.needsUpdate = true;
      normal.needsUpdate = true;
    }
    this.shape = shape.key;
    const look = mode === 'clay' ? CLAY : finish;
    this.material.color.set(look.colour);
    this.material.roughness = look.roughness;
    this.material.metalness = look.metalness;
    if (this.lines) this.lines.visible = mode === 'edges';
  }

  dispose(): void {
    this.clear();
    this.material.dispose();
    this.lineMaterial.dispose();
  }

  private rebuild(shape: Drawable): void {
    this.clear();
    this.topology = shape.topology.key;
    if (shape.topology.closed !== this.closed) {
      this.closed = shape.topology.closed;
      // Backs of faces have their normals turned to the eye. On a closed form only slivers of them
      // are ever seen, along its outline, and turning those would draw a dark fringe round it.
      this.material.normalNode = this.closed ? normalViewGeometry : null;
      this.material.needsUpdate = true;
    }
    if (shape.positions.length === 0) return;
    const geometry = new BufferGeometry();
    const position = new BufferAttribute(shape.positions, 3);
    geometry.setAttribute('position', position);
    geometry.setAttribute('normal', new BufferAttribute(shape.normals, 3));
    geometry.setIndex(new BufferAttribute(shape.topology.triangles, 1));
    this.mesh = new Mesh(geometry, this.material);
    // The shapes move within the loop, so a box round one frame would cut off the others.
    this.mesh.frustumCulled = false;
    const edges = new BufferGeometry();
    edges.setAttribute('position', position);
    edges.setIndex(new BufferAttribute(shape.topology.edges, 1));
    this.lines = new LineSegments(edges, this.lineMaterial);
    this.lines.frustumCulled = false;
    this.group.add(this.mesh, this.lines);
  }

  private clear(): void {
    this.mesh?.geometry.dispose();
    this.lines?.geometry.dispose();
    this.group.clear();
    this.mesh = null;
    this.lines = null;
  }
}
