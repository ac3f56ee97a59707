import { sweepShape } from '@maypole/core/scene/grounds/sweep-shape';
import type { GroundAt } from '@maypole/core/scene/kind';
import { float, normalViewGeometry, positionWorld, smoothstep, uniform } from 'three/tsl';
import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DoubleSide,
  Mesh,
  MeshStandardNodeMaterial,
  PlaneGeometry,
  ShadowNodeMaterial,
  type Camera,
  type Scene,
  type WebGPURenderer,
} from 'three/webgpu';

import type { AmbientOcclusion, Occlusions } from './ambient-occlusion';
import type { Extent } from '../stage/extent';
import { Mirror } from './mirror';
import { scalar } from '../surfaces/tsl';

type Catcher = Extract<GroundAt, { type: 'catcher' }>;

interface Made {
  readonly type: GroundAt['type'];
  readonly mesh: Mesh;
  fill(ground: GroundAt): void;
}

/** Grounds as scene objects: made once for each in the list, then updated. */
export class Grounds {
  private made: Made[] = [];
  private domes: Occlusions | null = null;
  private mirror: Mirror | null = null;

  constructor(private readonly scene: Scene) {}

  update(list: readonly GroundAt[], domes: Occlusions | null): void {
    if (domes !== this.domes || list.map((g) => g.type).join() !== this.made.map((m) => m.type).join()) {
      this.clear();
      this.domes = domes;
      this.made = list.map(({ type }) => GROUNDS[type](domes));
      for (const { mesh } of this.made) {
        mesh.receiveShadow = true;
        mesh.frustumCulled = false;
        this.scene.add(mesh);
      }
    }
    list.forEach((ground, i) => this.made[i].fill(ground));
  }

  /** Draws floor reflections before the picture itself; they are not part of it. */
  reflect(
    renderer: WebGPURenderer,
    camera: Camera,
    list: readonly GroundAt[],
    extent: () => Extent,
    number: number,
    of: number,
  ): void {
    const floor = list.find((g): g is Catcher => g.type === 'catcher' && g.mirror > 0);
    if (!floor) {
      if (this.mirror) this.scene.remove(this.mirror.mesh);
      return;
    }
    this.mirror ??= new Mirror();
    const grounds = [this.mirror.mesh, ...this.made.filter((m) => m.type === 'catcher').map((m) => m.mesh)];
    for (const mesh of grounds) mesh.visible = false;
    this.mirror.draw(renderer, this.scene, camera, floor, extent().radius, number, of);
    for (const mesh of grounds) mesh.visible = true;
    this.scene.add(this.mirror.mesh);
  }

  dispose(): void {
    this.clear();
    this.mirror?.dispose();
  }

  private clear(): void {
    for (const { mesh } of this.made) {
      this.scene.remove(mesh);
      mesh.geometry.dispose();
      (mesh.material as MeshStandardNodeMaterial).dispose();
    }
    this.made = [];
  }
}

/** A shadow catcher: only shadows, as dark as they are, fading out towards its edge. */
function makeCatcher(dome?: AmbientOcclusion): Made {
  const [strength, reach] = [uniform(1), uniform(1)];
  const colour = uniform(new Color());
  const material = new ShadowNodeMaterial({ transparent: true, depthWrite: false });
  material.colorNode = colour;
  const away = positionWorld.xz.length();
  material.opacityNode = strength.mul(smoothstep(reach, reach.mul(0.4), away));
  catchRectangles(material);
  dome?.occludeCatcher(material);
  const mesh = new Mesh(new PlaneGeometry(2, 2).rotateX(-Math.PI / 2), material);
  // Before everything transparent: shadows lie below it.
  mesh.renderOrder = -1;
  return {
    type: 'catcher',
    mesh,
    fill(ground) {
      if (ground.type !== 'catcher') return;
      strength.value = ground.strength;
      reach.value = ground.reach;
      colour.value.set(ground.colour);
      mesh.position.y = ground.height;
      mesh.scale.set(ground.reach, 1, ground.reach);
    },
  };
}

interface MaskModel {
  readonly shadowNode: { mulAssign(x: unknown): void };
  directRectArea?(light: { readonly lightNode: { readonly shadowNode: unknown } }): void;
}

/** Makes a catcher receive shadows of rectangles too, which the library's model leaves out. */
function catchRectangles(material: ShadowNodeMaterial): void {
  const own = material as object as { setupLightingModel(builder: unknown): MaskModel };
  const usual = own.setupLightingModel.bind(material);
  own.setupLightingModel = (builder) => {
    const model = usual(builder);
    model.directRectArea = ({ lightNode }) => {
      if (lightNode.shadowNode) model.shadowNode.mulAssign(lightNode.shadowNode);
    };
    return model;
  };
}

/** A floor that curves up into a wall. */
function makeSweep(dome?: AmbientOcclusion): Made {
  const material = new MeshStandardNodeMaterial({ side: DoubleSide });
  material.normalNode = normalViewGeometry;
  dome?.occlude(material, scalar(float(1)));
  const mesh = new Mesh(new BufferGeometry(), material);
  let shape = '';
  return {
    type: 'sweep',
    mesh,
    fill(ground) {
      if (ground.type !== 'sweep') return;
      material.color.set(ground.colour);
      material.roughness = ground.roughness;
      mesh.position.y = ground.height;
      mesh.rotation.y = (ground.turn * Math.PI) / 180;
      const key = `${ground.back}/${ground.curve}`;
      if (key === shape) return;
      shape = key;
      mesh.geometry.dispose();
      mesh.geometry = sweepGeometry(ground.back, ground.curve);
    },
  };
}

const GROUNDS: Record<GroundAt['type'], (domes: Occlusions | null) => Made> = {
  catcher: (domes) => makeCatcher(domes?.floor),
  sweep: (domes) => makeSweep(domes?.forms),
};

function sweepGeometry(back: number, curve: number): BufferGeometry {
  const { positions, normals, triangles } = sweepShape(back, curve);
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  geometry.setAttribute('normal', new BufferAttribute(normals, 3));
  geometry.setIndex(new BufferAttribute(triangles, 1));
  return geometry;
}
