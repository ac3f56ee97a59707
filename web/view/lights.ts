import { isLamp, surroundOf, type Lamp, type LightAt } from '@maypole/core/scene/kind';
import { studioSun, surroundStrength } from '@maypole/core/scene/surround/picture';
import { AreaLight } from './area-light';
import {
  Color,
  DirectionalLight,
  PointLight,
  SpotLight,
  Vector3,
  type DataTexture,
  type DirectionalLightShadow,
  type Light,
  type Scene,
} from 'three/webgpu';
import { lensOffset, pixelOffset } from './subframes';
import { AIR_LAYER, FILLS } from './air-layer';
import type { Extent } from './extent';
import { CUBE_EDGE, type SurroundFilter } from './surround-filter';
import { meanLight, SurroundTextures } from './surround-textures';

type LampObject = DirectionalLight | PointLight | SpotLight | AreaLight;

/** Surroundings that give no light. */
const DARK = { type: 'studio', strength: 0, turn: 0 } as const;

/** Pixels of a shadow map each way: fewer for a small picture. Sub-frames make its edges soft. */
const SHADOW_PIXELS = { small: 512, usual: 1024 } as const;

/** Pictures no higher than this are small, in pixels. */
const SMALL = 320;

/**
 * The lights of a scene as lights of the card. What is round about is one of the surroundings, the
 * first in the list; lamps are as many as there are. In each sub-frame a lamp shines from another
 * point of itself, so that the average has shadows as soft as it is large.
 */
export class Lights {
  private readonly surroundings = new SurroundTextures();
  private readonly key = new DirectionalLight('#ffffff', 2);
  /** Mean light from all round. */
  readonly around = new Color();
  private lamps: { readonly sort: string; readonly object: LampObject }[] = [];
  private pixels: number = SHADOW_PIXELS.usual;

  /** The picture of what is round about, if there is any. */
  round: DataTexture | null = null;

  /** @param filter blurs surroundings for rough surfaces, where the library is not to do it by itself */
  constructor(
    private readonly scene: Scene,
    private readonly filter: SurroundFilter | null = null,
  ) {
    this.key.userData[FILLS] = true;
    this.key.layers.enable(AIR_LAYER);
    scene.add(this.key, this.key.target);
  }

  /**
   * @param extentOf asked for where there are lamps: with many copies it is not to be had for nothing
   * @param reach how far beyond the middle of what stands there its shadows may be seen: in its radii, or in metres
   * @param number of the sub-frame, and how many there are; with 1 lamps shine from their middle
   */
  update(
    list: readonly LightAt[],
    extentOf: () => Extent,
    reach: { readonly radii: number; readonly metres: number },
    number: number,
    of: number,
  ): void {
    this.surround(list);
    const lamps = list.filter(isLamp);
    const sorts = lamps.map((l) => `${l.type}${l.shadow ? ' shadow' : ''}`);
    if (sorts.join() !== this.lamps.map((l) => l.sort).join()) this.remake(lamps, sorts);
    if (lamps.length === 0) return;
    const extent = extentOf();
    lamps.forEach((lamp, i) =>
      place(
        this.lamps[i].object,
        lamp,
        extent,
        Math.max(reach.radii * extent.radius, reach.metres),
        of === 1 ? [0, 0] : lamp.type === 'area' ? squareOffset(number, i) : lensOffset(number + 7 * i),
      ),
    );
  }

  dispose(): void {
    this.clear();
    this.surroundings.dispose();
  }

  /** Height of the picture in pixels. */
  setHeight(height: number): void {
    const size = height <= SMALL ? 'small' : 'usual';
    this.filter?.setEdge(CUBE_EDGE[size]);
    const pixels = SHADOW_PIXELS[size];
    if (pixels === this.pixels) return;
    this.pixels = pixels;
    // They are made anew with the next picture.
    this.clear();
  }

  /** What is round about; without it, it is dark but for the lamps. The studio has a sun of its own. */
  private surround(list: readonly LightAt[]): void {
    const { scene } = this;
    const round = surroundOf(list);
    const turn = ((round?.turn ?? 0) * Math.PI) / 180;
    const sun = studioSun(round);
    this.key.visible = sun !== null;
    if (sun) {
      this.key.intensity = sun.irradiance;
      this.key.position.set(...sun.from);
    }
    const texture = round ? this.surroundings.of(round) : null;
    this.round = texture;
    // Materials are compiled for an environment, so that there is always one.
    const shown = texture ?? this.surroundings.of(DARK)!;
    scene.environment = this.filter?.of(shown) ?? shown;
    scene.environmentIntensity = texture && round ? surroundStrength(round) : 0;
    if (texture) this.around.copy(meanLight(texture)).multiplyScalar(scene.environmentIntensity);
    else this.around.setRGB(0, 0, 0);
    scene.environmentRotation.set(((round?.tilt ?? 0) * Math.PI) / 180, turn, 0, 'YXZ');
  }

  private remake(lamps: readonly Lamp[], sorts: readonly string[]): void {
    this.clear();
    this.lamps = lamps.map((lamp, i) => {
      const object = made(lamp);
      object.layers.enable(AIR_LAYER);
      if (lamp.shadow) {
        const shadow = object instanceof AreaLight ? object.areaShadow : object.shadow;
        object.castShadow = true;
        shadow.mapSize.set(this.pixels, this.pixels);
        shadow.radius = 1.5;
      }
      this.scene.add(object);
      if ('target' in object) this.scene.add(object.target);
      return { sort: sorts[i], object };
    });
  }

  private clear(): void {
    for (const { object } of this.lamps) {
      if ('target' in object) this.scene.remove(object.target);
      this.scene.remove(object);
      (object as Light & { dispose(): void }).dispose();
    }
    this.lamps = [];
  }
}

function made({ type }: Lamp): LampObject {
  if (type === 'sun') return new DirectionalLight();
  if (type === 'area') return new AreaLight();
  return type === 'ball' ? new PointLight() : new SpotLight();
}

const [side, up] = [new Vector3(), new Vector3()];

/** Moves a point square to a direction by two shares of a radius. */
function shifted(point: Vector3, along: Vector3, radius: number, [a, b]: readonly [number, number]): void {
  side.set(0, 1, 0).cross(along);
  if (side.lengthSq() < 1e-9) side.set(1, 0, 0);
  side.normalize();
  up.copy(along).cross(side).normalize();
  point.addScaledVector(side, a * radius).addScaledVector(up, b * radius);
}

const along = new Vector3();

/** A point of a square, −1…1 each way, for a sub-frame; other lamps have others. */
function squareOffset(number: number, lamp: number): readonly [number, number] {
  const [x, y] = pixelOffset(number + 7 * lamp);
  return [2 * x, 2 * y];
}

/** @param behind how far beyond the middle of what stands there shadows reach, in metres */
function place(
  object: LampObject,
  lamp: Lamp,
  extent: Extent,
  behind: number,
  offset: readonly [number, number],
): void {
  object.color.setRGB(lamp.colour[0], lamp.colour[1], lamp.colour[2]);
  const reach = Math.max(0.1, extent.radius);
  if (lamp.type === 'sun') {
    const sun = object as DirectionalLight;
    const far = 3 * reach;
    sun.intensity = lamp.irradiance;
    sun.target.position.set(...extent.centre);
    along.set(...lamp.from);
    sun.position.set(...extent.centre).addScaledVector(along, far);
    shifted(sun.position, along, far * Math.tan((lamp.angle * Math.PI) / 360), offset);
    const { camera } = sun.shadow as DirectionalLightShadow;
    camera.left = camera.bottom = -reach;
    camera.right = camera.top = reach;
    camera.near = Math.max(0.01, far - 1.5 * reach);
    camera.far = far + behind;
    camera.updateProjectionMatrix();
    sun.shadow.bias = -0.002;
    sun.shadow.normalBias = 0.004 * reach;
    return;
  }
  if (lamp.type === 'area') {
    const shape = { ...lamp, extent: { ...extent, radius: reach }, point: offset, reach: behind };
    (object as AreaLight).place(shape, new Color(...lamp.colour), lamp.radiance);
    return;
  }
  const lit = object as PointLight | SpotLight;
  lit.intensity = lamp.intensity;
  lit.decay = 2;
  lit.position.set(...lamp.at);
  along.set(...(lamp.type === 'spot' ? lamp.target : extent.centre)).sub(lit.position);
  if (along.lengthSq() > 0) shifted(lit.position, along.normalize(), lamp.radius, offset);
  const farthest = Math.hypot(...lamp.at.map((x, k) => x - extent.centre[k])) + reach;
  lit.shadow.camera.near = Math.max(0.02, farthest - 2.2 * reach);
  lit.shadow.camera.far = farthest * 1.05 + behind - 1.5 * reach;
  lit.shadow.bias = -0.003;
  lit.shadow.normalBias = 0.004 * reach;
  if (lamp.type === 'spot') {
    const spot = object as SpotLight;
    spot.angle = (lamp.cone * Math.PI) / 360;
    spot.penumbra = lamp.soft;
    spot.target.position.set(...lamp.target);
  }
  lit.shadow.camera.updateProjectionMatrix();
}
