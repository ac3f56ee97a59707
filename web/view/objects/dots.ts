import type { Dots } from '@maypole/core/finish/surface';
import {
  attribute,
  cameraProjectionMatrix,
  length,
  mix,
  modelViewMatrix,
  positionGeometry,
  uniform,
  varying,
  vec2,
  vec4,
} from 'three/tsl';
import {
  BufferAttribute,
  Color,
  DoubleSide,
  InstancedBufferAttribute,
  InstancedBufferGeometry,
  Mesh,
  MeshBasicNodeMaterial,
} from 'three/webgpu';
import type { DrawablePart } from '../stage/frame';
import { rgb } from '../surfaces/tsl';
import { throughViewTransform } from '../effects/view-transform';
import { frameShare, NEARER, parallelView, pictureAspect } from './wires';

/** Dots beyond this number are not drawn. */
export const MOST_DOTS = 1_000_000;

/** Material of a ribbon's dots: discs that face the camera. */
export class DotMaterial {
  private readonly colour = uniform(new Color());
  /** Diameter in halves of the picture's height, and in metres; one of both is 0. */
  private readonly pixels = uniform(0);
  private readonly metres = uniform(0);
  readonly material = this.make();

  update({ colour, strength, pixels, metres }: Dots): void {
    throughViewTransform(this.colour.value, colour).multiplyScalar(strength);
    this.pixels.value = (pixels ?? 0) / 1000;
    this.metres.value = (metres ?? 0) / 2;
  }

  dispose(): void {
    this.material.dispose();
  }

  private make(): MeshBasicNodeMaterial {
    const material = new MeshBasicNodeMaterial({ side: DoubleSide });
    const centre = attribute<'vec3'>('dotAt', 'vec3');
    const corner = positionGeometry.xy;
    const seen = modelViewMatrix.mul(vec4(centre, 1)).xyz.toVar();
    // Slightly in front of the faces they lie on, and by what sticks out of these.
    const nearer = mix(seen.mul(1 - NEARER), seen.add(vec4(0, 0, seen.z.negate().mul(NEARER), 0).xyz), parallelView);
    const inRoom = vec4(nearer.add(vec4(corner.mul(this.metres), this.metres, 0).xyz), 1);
    const clip = cameraProjectionMatrix.mul(inRoom).toVar();
    const off = corner.mul(this.pixels).mul(frameShare).div(vec2(pictureAspect, 1));
    material.vertexNode = vec4(clip.xy.add(off.mul(clip.w)), clip.z, clip.w);
    material.positionNode = centre;
    material.maskNode = length(varying(corner, 'dotCorner')).lessThan(1);
    material.colorNode = rgb(this.colour);
    return material;
  }
}

/** The dots of one part, reused from frame to frame. */
export class DotObject {
  readonly mesh: Mesh<InstancedBufferGeometry>;
  private shape = '';
  private buffer: InstancedBufferAttribute | null = null;

  constructor(look: DotMaterial) {
    const geometry = new InstancedBufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float32Array.of(-1, -1, 0, 1, -1, 0, -1, 1, 0, 1, 1, 0), 3));
    geometry.setIndex([0, 1, 2, 2, 1, 3]);
    this.mesh = new Mesh(geometry, look.material);
    this.mesh.frustumCulled = false;
  }

  /** @param key identifies the shape and its instances */
  update(part: DrawablePart, key: string): void {
    if (key === this.shape) return;
    this.shape = key;
    const { geometry } = this.mesh;
    const dots = dotsOf(part);
    if (!this.buffer || this.buffer.array.length < dots.length) {
      this.buffer = new InstancedBufferAttribute(new Float32Array(Math.ceil(dots.length * 1.1) + 3), 3);
      geometry.setAttribute('dotAt', this.buffer);
    }
    (this.buffer.array as Float32Array).set(dots);
    this.buffer.needsUpdate = true;
    geometry.instanceCount = dots.length / 3;
  }

  dispose(): void {
    this.mesh.geometry.dispose();
  }
}

/** Every vertex of a part in all its instances, up to the limit: 3 numbers each. */
export function dotsOf({ positions, instances }: Pick<DrawablePart, 'positions' | 'instances'>): Float32Array {
  if (!instances) return positions.subarray(0, 3 * Math.min(MOST_DOTS, positions.length / 3));
  const own = positions.length / 3;
  const copies = Math.min(instances.numbers.length, Math.floor(MOST_DOTS / Math.max(1, own)));
  const out = new Float32Array(3 * own * copies);
  const m = instances.matrices;
  let o = 0;
  for (let c = 0; c < copies; c++)
    for (let v = 0; v < positions.length; v += 3) {
      const [x, y, z] = [positions[v], positions[v + 1], positions[v + 2]];
      for (let r = 0; r < 3; r++)
        out[o++] = m[16 * c + r] * x + m[16 * c + 4 + r] * y + m[16 * c + 8 + r] * z + m[16 * c + 12 + r];
    }
  return out;
}
