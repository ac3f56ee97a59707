import { diffuseColor, metalness, mix, specularColor, specularColorBlended, specularF90, vec3 } from 'three/tsl';
import { MeshPhysicalNodeMaterial, type MeshStandardNodeMaterial } from 'three/webgpu';
import type { Scalar } from './tsl';

/** Mirror share of a refractive index of 1.5, seen straight on: what a plain material has. */
const F0 = 0.04;

/**
 * How much of light is mirrored where a material is no metal, as KHR_materials_specular of glTF has it.
 * The library's plain material knows no such thing, and what it sets is set here.
 */
export function mirrorShare(material: MeshStandardNodeMaterial, share: Scalar): void {
  if (material instanceof MeshPhysicalNodeMaterial) {
    material.specularIntensityNode = share;
    return;
  }
  material.setupSpecular = () => {
    const straight = vec3(F0).mul(share);
    specularColor.assign(straight);
    specularColorBlended.assign(mix(straight, diffuseColor.rgb, metalness));
    specularF90.assign(mix(share, 1, metalness));
  };
}
