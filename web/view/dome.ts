import { diffuseColor, float, normalWorld, positionWorld, shadow, smoothstep, uniform, vec4 } from 'three/tsl';
import { DirectionalLight, Vector3, type DirectionalLightShadow, type NodeMaterial } from 'three/webgpu';
import type { Extent } from './extent';
import { domeDirection, domeUpward } from './subframes';
import { scalar, type Rgb, type Scalar } from './tsl';

/** Pixels of its shadow map each way: few, so that each of its shadows is soft and their average is smooth. */
const PIXELS = 256;

/** A lighting model as far as it is changed here. */
interface Model {
  ambientOcclusion?(builder: { readonly context: { readonly reflectedLight: Reflected } }): void;
  finish?(builder: unknown): void;
}

interface Reflected {
  readonly indirectDiffuse: { mulAssign(x: Scalar): void };
  readonly indirectSpecular: { mulAssign(x: Scalar): void };
}

/**
 * Light from all round that does not get everywhere. In each sub-frame one direction of it is looked
 * at: what is hidden from there loses four times the cosine of it, the rest loses nothing. Over evenly
 * spread directions the average is ∫ V·cos θ / π, the share of light from all round that reaches a
 * place, and open places are even in every sub-frame.
 */
export class Dome {
  private readonly light = new DirectionalLight();
  private readonly from = uniform(new Vector3(0, 1, 0));
  private readonly amount = uniform(0);
  private readonly centre = uniform(new Vector3());
  private readonly reach = uniform(1);
  private readonly seen = scalar(shadow(this.light));

  /**
   * @param lies what it shades is a floor, for which directions are taken as often as they count, so that
   * nothing is ever brighter than open
   */
  constructor(private readonly lies = false) {
    this.light.castShadow = true;
    this.light.shadow.mapSize.set(PIXELS, PIXELS);
    this.light.shadow.radius = 3;
  }

  /**
   * @param amount 0…1
   * @param number of the sub-frame, of how many; with one of one nothing is kept out
   */
  update(amount: number, { centre, radius }: Extent, number: number, of: number): void {
    this.amount.value = of === 1 ? 0 : amount;
    const d = this.from.value.set(...(this.lies ? domeUpward(number) : domeDirection(number)));
    const reach = Math.max(0.1, radius);
    this.centre.value.set(...centre);
    this.reach.value = reach * 1.2;
    this.light.target.position.set(...centre);
    this.light.position.set(...centre).addScaledVector(d, 3 * reach);
    for (const object of [this.light, this.light.target]) object.updateMatrixWorld();
    const { camera } = this.light.shadow as DirectionalLightShadow;
    camera.left = camera.bottom = -reach;
    camera.right = camera.top = reach;
    camera.near = 0.5 * reach;
    camera.far = 12 * reach;
    camera.updateProjectionMatrix();
    this.light.shadow.bias = -0.004;
    this.light.shadow.normalBias = 0.02 * reach;
  }

  /** What a place loses in this sub-frame: 0 in the open, beyond 1 where it is hidden from a direction it faces. */
  lost(): Scalar {
    // Far off, what keeps light out is small; the few directions of a picture would show it as spots.
    const away = positionWorld.sub(this.centre).length();
    const hidden = float(1)
      .sub(this.seen)
      .mul(this.amount)
      .mul(smoothstep(this.reach.mul(3), this.reach, away));
    return scalar(this.lies ? hidden : normalWorld.dot(this.from).max(0).mul(4).mul(hidden));
  }

  /** Has a material keep out what does not reach it; its light from lamps stays. */
  shade(material: NodeMaterial, roughness: Scalar): void {
    keepSign(material);
    this.changed(material, (model) => {
      model.ambientOcclusion = ({ context: { reflectedLight } }) => {
        const lost = this.lost().toVar();
        reflectedLight.indirectDiffuse.mulAssign(scalar(float(1).sub(lost)));
        // The rougher a surface, the wider the light that its mirror image gathers.
        reflectedLight.indirectSpecular.mulAssign(scalar(float(1).sub(lost.mul(roughness))));
      };
    });
  }

  /** Has a floor of which only shadows are seen show what it loses, too. */
  catch(material: NodeMaterial): void {
    this.changed(material, (model) => {
      const own = model as Model & { readonly shadowNode: { mulAssign(x: Scalar): void } };
      const usual = own.finish!.bind(own);
      own.finish = (builder) => {
        own.shadowNode.mulAssign(scalar(float(1).sub(this.lost()).max(0)));
        usual(builder);
      };
    });
  }

  private changed(material: NodeMaterial, change: (model: Model) => void): void {
    const own = material as object as { setupLightingModel(builder: unknown): Model };
    // What is compiled is told apart by this.
    const key = material.customProgramCacheKey.bind(material);
    material.customProgramCacheKey = () => `${key()}/dome`;
    const usual = own.setupLightingModel.bind(material);
    own.setupLightingModel = (builder) => {
      const model = usual(builder);
      change(model);
      return model;
    };
  }

  dispose(): void {
    this.light.dispose();
  }
}

/** For forms, and for floors of which only shadows are seen. */
export interface Domes {
  readonly forms: Dome;
  readonly floor: Dome;
}

/**
 * Lets a material write light below nothing: in a sub-frame a place may lose more than it has, and
 * only the average is what it is lit by.
 */
function keepSign(material: NodeMaterial): void {
  const own = material as object as {
    setupLighting(builder: unknown): Rgb;
    setupOutput(builder: unknown, plain: unknown): unknown;
  };
  const [lighting, output] = [own.setupLighting.bind(material), own.setupOutput.bind(material)];
  let light: Rgb | null = null;
  own.setupLighting = (builder) => (light = lighting(builder));
  own.setupOutput = (builder, plain) => output(builder, light ? vec4(light, diffuseColor.a) : plain);
}
