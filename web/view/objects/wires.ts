import type { Wires } from '@maypole/core/finish/surface';
import {
  attribute,
  cameraProjectionMatrix,
  mix,
  modelViewMatrix,
  normalize,
  positionGeometry,
  uniform,
  vec2,
  vec3,
  vec4,
} from 'three/tsl';
import {
  BufferAttribute,
  Color,
  DoubleSide,
  GreaterDepth,
  Group,
  InstancedBufferGeometry,
  InstancedInterleavedBuffer,
  InterleavedBufferAttribute,
  LessEqualDepth,
  Mesh,
  MeshBasicNodeMaterial,
} from 'three/webgpu';
import type { DrawablePart } from '../stage/frame';
import { rgb, scalar, type Rgb, type Scalar } from '../surfaces/tsl';
import { throughViewTransform } from '../effects/view-transform';

/** Lines beyond this many are not drawn: each is a body of its own on the card. */
export const MOST_LINES = 400_000;

/** The share of the picture's height that the delivered frame fills; lines are as wide as they are in that. */
export const frameShare = uniform(1);

/** 1 where rays are parallel. */
export const parallelView = uniform(0);

/** Share of the way to the eye by which lines stand before the faces they lie on. */
export const NEARER = 0.0015;

/** Width / height of the picture that is drawn. */
export const pictureAspect = uniform(1);

/** The materials of a ribbon's wires: of what is seen, and of what lies behind faces. */
export class WireMaterials {
  private readonly width = uniform(1);
  private readonly colour = uniform(new Color());
  private readonly hidden = uniform(0);
  readonly front = this.make(false);
  readonly behind = this.make(true);

  update({ colour, strength, width, hidden }: Wires): void {
    throughViewTransform(this.colour.value, colour).multiplyScalar(strength);
    this.width.value = width;
    this.hidden.value = hidden;
  }

  dispose(): void {
    this.front.dispose();
    this.behind.dispose();
  }

  private make(behind: boolean): MeshBasicNodeMaterial {
    const material = new MeshBasicNodeMaterial({
      side: DoubleSide,
      depthFunc: behind ? GreaterDepth : LessEqualDepth,
      depthWrite: !behind,
      transparent: behind,
    });
    const [start, end] = [attribute<'vec3'>('lineStart', 'vec3'), attribute<'vec3'>('lineEnd', 'vec3')];
    // Corners of a line: −1 or 1 across, 0 or 1 along.
    const corner = positionGeometry;
    material.positionNode = mix(start, end, corner.y);
    material.vertexNode = ends(rgb(start), rgb(end), scalar(corner.x), scalar(corner.y), scalar(this.width));
    material.colorNode = rgb(this.colour);
    if (behind) material.opacityNode = this.hidden;
    return material;
  }
}

/** Where a corner of a line stands in the picture: beside it by half its width, which does not shrink with distance. */
function ends(start: Rgb, end: Rgb, across: Scalar, along: Scalar, width: Scalar) {
  // A little nearer to the eye than the faces they lie on; in perspective that is the same place in the picture.
  const clip = (p: Rgb) => {
    const seen = modelViewMatrix.mul(vec4(p, 1)).xyz;
    const nearer = mix(seen.mul(1 - NEARER), seen.add(vec3(0, 0, seen.z.negate().mul(NEARER))), parallelView);
    return cameraProjectionMatrix.mul(vec4(nearer, 1)).toVar();
  };
  const [a0, b0] = [clip(start), clip(end)];
  // What lies behind the eye is cut off just before it, or the line would be turned over.
  const least = 1e-4;
  const cut = (p: typeof a0, other: typeof a0) => {
    const t = p.w.sub(least).div(p.w.sub(other.w));
    return p.w
      .lessThan(least)
      .select(mix(p, other, t), p)
      .toVar();
  };
  const [a, b] = [cut(a0, b0), cut(b0, a0)];
  const square = vec2(pictureAspect, 1);
  const way = b.xy.div(b.w).sub(a.xy.div(a.w)).mul(square).toVar();
  const length = way.length();
  const ahead = length.greaterThan(1e-7).select(normalize(way), vec2(1, 0)).toVar();
  const side = vec2(ahead.y.negate(), ahead.x);
  // Half the width, in halves of the picture's height; a little beyond its ends, so that corners are whole.
  const half = width.mul(0.001).mul(frameShare);
  const off = side
    .mul(across)
    .add(ahead.mul(along.mul(2).sub(1)).mul(0.7))
    .mul(half)
    .div(square);
  const at = mix(a, b, along).toVar();
  return vec4(at.xy.add(off.mul(at.w)), at.z, at.w);
}

/** The lines of one part, kept from frame to frame. */
export class WireObject {
  readonly group = new Group();
  private readonly front: Mesh<InstancedBufferGeometry>;
  private readonly behind: Mesh<InstancedBufferGeometry>;
  private buffer: InstancedInterleavedBuffer | null = null;
  private shape = '';

  constructor(materials: WireMaterials) {
    const geometry = new InstancedBufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float32Array.of(-1, 0, 0, 1, 0, 0, -1, 1, 0, 1, 1, 0), 3));
    geometry.setIndex([0, 1, 2, 2, 1, 3]);
    this.front = new Mesh(geometry, materials.front);
    this.behind = new Mesh(geometry, materials.behind);
    this.behind.renderOrder = 1;
    for (const mesh of [this.front, this.behind]) {
      mesh.frustumCulled = false;
      this.group.add(mesh);
    }
  }

  /** @param key of the shape and its places */
  update(part: DrawablePart, key: string, hidden: boolean): void {
    this.behind.visible = hidden;
    if (key === this.shape) return;
    this.shape = key;
    const { geometry } = this.front;
    const lines = linesOf(part);
    if (!this.buffer || this.buffer.array.length < lines.length) {
      // The card cannot make a buffer larger; one too many is not drawn.
      this.buffer = new InstancedInterleavedBuffer(new Float32Array(Math.ceil(lines.length * 1.1) + 6), 6, 1);
      geometry.setAttribute('lineStart', new InterleavedBufferAttribute(this.buffer, 3, 0));
      geometry.setAttribute('lineEnd', new InterleavedBufferAttribute(this.buffer, 3, 3));
    }
    (this.buffer.array as Float32Array).set(lines);
    this.buffer.needsUpdate = true;
    geometry.instanceCount = lines.length / 6;
  }

  dispose(): void {
    this.front.geometry.dispose();
    this.group.clear();
  }
}

/** Both ends of every edge and every piece of a curve of a part, in all its places: 6 numbers each, as many as may be. */
export function linesOf({ positions, topology, instances }: DrawablePart): Float32Array {
  const { edges, lines } = topology;
  const own = (edges.length + lines.length) / 2;
  const copies = instances ? instances.numbers.length : 1;
  const whole = Math.min(copies, Math.floor(MOST_LINES / Math.max(1, own)));
  const out = new Float32Array(6 * own * whole);
  let o = 0;
  for (let c = 0; c < whole; c++)
    for (const list of [edges, lines])
      for (const vertex of list) {
        const [x, y, z] = [positions[3 * vertex], positions[3 * vertex + 1], positions[3 * vertex + 2]];
        if (!instances) {
          out[o++] = x;
          out[o++] = y;
          out[o++] = z;
          continue;
        }
        const m = instances.matrices;
        for (let r = 0; r < 3; r++)
          out[o++] = m[16 * c + r] * x + m[16 * c + 4 + r] * y + m[16 * c + 8 + r] * z + m[16 * c + 12 + r];
      }
  return out;
}
