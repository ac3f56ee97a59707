import { isLamp, environmentOf, type AirAt, type Lamp, type LightAt } from '@maypole/core/scene/kind';
import { studioSun, environmentStrength } from '@maypole/core/scene/environment/picture';
import {
  Color,
  DirectionalLight,
  Vector3,
  type DataTexture,
  type DirectionalLightShadow,
  type Light,
  type Scene,
} from 'three/webgpu';
import { lensOffset, pixelOffset } from '../stage/subframes';
import { airKinds, type Air } from './air';
import { AIR_LAYER, FILLS } from './air-layer';
import { DimmedArea, DimmedPoint, DimmedSpot } from './dimmed-lights';
import type { Extent } from '../stage/extent';
import { CUBE_EDGE, type EnvironmentFilter } from './environment-filter';
import { meanLight, EnvironmentTextures } from './environment-textures';

type LampObject = DirectionalLight | DimmedPoint | DimmedSpot | DimmedArea;

/** An environment without light. */
const DARK = { type: 'studio', strength: 0, turn: 0 } as const;

/** Width and height of a shadow map: smaller for a small picture. Sub-frames soften its edges. */
const SHADOW_PIXELS = { small: 512, usual: 1024 } as const;

/** Pictures up to this height are small, in pixels. */
const SMALL = 320;

/**
 * The lights of a scene as lights of the library. The first environment of the list is used, and every lamp. In each
 * sub-frame a lamp shines from another of its points, so that the average has shadows as soft as it is large.
 */
export class Lights {
  private readonly surroundings = new EnvironmentTextures();
  private readonly key = new DirectionalLight('#ffffff', 2);
  /** Mean radiance of the environment. */
  readonly meanRadiance = new Color();
  private lamps: { readonly sort: string; readonly object: LampObject }[] = [];
  private pixels: number = SHADOW_PIXELS.usual;

  /** The environment map, if any. */
  environmentMap: DataTexture | null = null;

  /** @param filter blurs environments for rough surfaces where the library should not */
  constructor(
    private readonly scene: Scene,
    private readonly air: Air,
    private readonly filter: EnvironmentFilter | null = null,
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
    airs: readonly AirAt[],
    extentOf: () => Extent,
    reach: { readonly radii: number; readonly metres: number },
    number: number,
    of: number,
  ): void {
    this.setEnvironment(list);
    const lamps = list.filter(isLamp);
    const kinds = airKinds(airs);
    const sorts = lamps.map((l) => `${l.type}${l.shadow ? ' shadow' : ''}${l.type === 'sun' ? '' : ` ${kinds}`}`);
    if (sorts.join() !== this.lamps.map((l) => l.sort).join()) this.remake(lamps, sorts, airs);
    if (lamps.length === 0) return;
    const extent = extentOf();
    lamps.forEach((lamp, i) => {
      const { object } = this.lamps[i];
      place(
        object,
        lamp,
        extent,
        Math.max(reach.radii * extent.radius, reach.metres),
        of === 1 ? [0, 0] : lamp.type === 'area' ? squareOffset(number, i) : lensOffset(number + 7 * i),
      );
    });
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
    // Remade with the next picture.
    this.clear();
  }

  /** Sets the environment; without one, only lamps give light. The studio has a sun of its own. */
  private setEnvironment(list: readonly LightAt[]): void {
    const { scene } = this;
    const environmentMap = environmentOf(list);
    const turn = ((environmentMap?.turn ?? 0) * Math.PI) / 180;
    const sun = studioSun(environmentMap);
    this.key.visible = sun !== null;
    if (sun) {
      this.key.intensity = sun.irradiance;
      this.key.position.set(...sun.from);
    }
    const texture = environmentMap ? this.surroundings.of(environmentMap) : null;
    this.environmentMap = texture;
    // Materials are compiled for an environment, so that there is always one.
    const shown = texture ?? this.surroundings.of(DARK)!;
    scene.environment = this.filter?.of(shown) ?? shown;
    scene.environmentIntensity = texture && environmentMap ? environmentStrength(environmentMap) : 0;
    if (texture) this.meanRadiance.copy(meanLight(texture)).multiplyScalar(scene.environmentIntensity);
    else this.meanRadiance.setRGB(0, 0, 0);
    scene.environmentRotation.set(((environmentMap?.tilt ?? 0) * Math.PI) / 180, turn, 0, 'YXZ');
  }

  private remake(lamps: readonly Lamp[], sorts: readonly string[], airs: readonly AirAt[]): void {
    this.clear();
    this.lamps = lamps.map((lamp, i) => {
      const object = OBJECTS[lamp.type]();
      object.layers.enable(AIR_LAYER);
      if (lamp.shadow) {
        const shadow = object instanceof DimmedArea ? object.areaShadow : object.shadow;
        object.castShadow = true;
        shadow.mapSize.set(this.pixels, this.pixels);
        shadow.radius = 1.5;
      }
      this.scene.add(object);
      if ('target' in object) this.scene.add(object.target);
      if (!(object instanceof DirectionalLight)) object.transmittance = this.air.transmittance(object.from, airs);
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

const OBJECTS: Record<Lamp['type'], () => LampObject> = {
  sun: () => new DirectionalLight(),
  area: () => new DimmedArea(),
  ball: () => new DimmedPoint(),
  spot: () => new DimmedSpot(),
};

const [side, up] = [new Vector3(), new Vector3()];

/** Offsets a point perpendicular to a direction by two shares of a radius. */
function shifted(point: Vector3, along: Vector3, radius: number, [a, b]: readonly [number, number]): void {
  side.set(0, 1, 0).cross(along);
  if (side.lengthSq() < 1e-9) side.set(1, 0, 0);
  side.normalize();
  up.copy(along).cross(side).normalize();
  point.addScaledVector(side, a * radius).addScaledVector(up, b * radius);
}

const along = new Vector3();

/** A point of a square, −1…1 each way, for a sub-frame; different for each lamp. */
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
    const area = object as DimmedArea;
    area.place(shape, new Color(...lamp.colour), lamp.radiance);
    area.from.value.copy(area.areaShadow.from);
    return;
  }
  const lit = object as DimmedPoint | DimmedSpot;
  lit.intensity = lamp.intensity;
  lit.decay = 2;
  lit.position.set(...lamp.at);
  along.set(...(lamp.type === 'spot' ? lamp.target : extent.centre)).sub(lit.position);
  if (along.lengthSq() > 0) shifted(lit.position, along.normalize(), lamp.radius, offset);
  lit.from.value.copy(lit.position);
  const farthest = Math.hypot(...lamp.at.map((x, k) => x - extent.centre[k])) + reach;
  lit.shadow.camera.near = Math.max(0.02, farthest - 2.2 * reach);
  lit.shadow.camera.far = farthest * 1.05 + behind - 1.5 * reach;
  lit.shadow.bias = -0.003;
  lit.shadow.normalBias = 0.004 * reach;
  if (lamp.type === 'spot') {
    const spot = object as DimmedSpot;
    spot.angle = (lamp.cone * Math.PI) / 360;
    spot.penumbra = lamp.soft;
    spot.target.position.set(...lamp.target);
  }
  lit.shadow.camera.updateProjectionMatrix();
}
