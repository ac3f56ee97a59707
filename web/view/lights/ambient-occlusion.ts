import { diffuseColor, float, normalWorld, positionWorld, shadow, smoothstep, uniform, vec4 } from 'three/tsl';
import { DirectionalLight, Vector3, type DirectionalLightShadow, type NodeMaterial } from 'three/webgpu';
import type { Extent } from '../stage/extent';
import { domeDirection, domeUpward } from '../stage/subframes';
import { scalar, type Rgb, type Scalar } from '../surfaces/tsl';

/** Width and height of its shadow map: few texels, so that each shadow is soft and their average smooth. */
const PIXELS = 256;

/** The part of a lighting model that is changed here. */
interface Model {
  ambientOcclusion?(builder: { readonly context: { readonly reflectedLight: Reflected } }): void;
  finish?(builder: unknown): void;
}

interface Reflected {
  readonly indirectDiffuse: { mulAssign(x: Scalar): void };
  readonly indirectSpecular: { mulAssign(x: Scalar): void };
}

/**
 * Ambient occlusion by sampling. Each sub-frame tests one direction of the environment: what is hidden from there loses
 * four times its cosine, the rest nothing. Averaged over evenly distributed directions that is ∫ V·cos θ / π, the
 * visible share of the environment, and open points are uniform in every sub-frame.
 */
export class AmbientOcclusion {
  private readonly light = new DirectionalLight();
  private readonly from = uniform(new Vector3(0, 1, 0));
  private readonly amount = uniform(0);
  private readonly centre = uniform(new Vector3());
  private readonly reach = uniform(1);
  private readonly seen = scalar(shadow(this.light));

  /** @param lies for a floor, whose directions are cosine-distributed, so that nothing is ever brighter than open */
  constructor(private readonly lies = false) {
    this.light.castShadow = true;
    this.light.shadow.mapSize.set(PIXELS, PIXELS);
    this.light.shadow.radius = 3;
  }

  /**
   * @param amount 0…1
   * @param number index of the sub-frame, out of how many; a single one occludes nothing
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

  /** What a point loses in this sub-frame: 0 in the open, above 1 if it is hidden from a direction it faces. */
  lost(): Scalar {
    // Far-away occluders are small; the few directions of a picture would show them as spots.
    const away = positionWorld.sub(this.centre).length();
    const hidden = float(1)
      .sub(this.seen)
      .mul(this.amount)
      .mul(smoothstep(this.reach.mul(3), this.reach, away));
    return scalar(this.lies ? hidden : normalWorld.dot(this.from).max(0).mul(4).mul(hidden));
  }

  /** Applies occlusion to a material's environment light; lamps are unaffected. */
  occlude(material: NodeMaterial, roughness: Scalar): void {
    keepSign(material);
    this.changed(material, (model) => {
      model.ambientOcclusion = ({ context: { reflectedLight } }) => {
        const lost = this.lost().toVar();
        reflectedLight.indirectDiffuse.mulAssign(scalar(float(1).sub(lost)));
        // Rougher surfaces gather their reflection from a wider cone.
        reflectedLight.indirectSpecular.mulAssign(scalar(float(1).sub(lost.mul(roughness))));
      };
    });
  }

  /** Makes a shadow catcher show occlusion too. */
  occludeCatcher(material: NodeMaterial): void {
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
    // Distinguishes compiled programs.
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

/** For shapes, and for shadow catchers. */
export interface Occlusions {
  readonly forms: AmbientOcclusion;
  readonly floor: AmbientOcclusion;
}

/**
 * Lets a material write negative light: in a sub-frame a point may lose more than it has, and only the average is its
 * light.
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
