import { diffuseColor, metalness, mix, specularColor, specularColorBlended, specularF90, vec3 } from 'three/tsl';
import { MeshPhysicalNodeMaterial, type MeshStandardNodeMaterial } from 'three/webgpu';
import type { Scalar } from './tsl';

/** Reflectance at normal incidence for an index of refraction of 1.5: that of a standard material. */
const F0 = 0.04;

/**
 * Specular reflectance of a dielectric, as KHR_materials_specular defines it. The library's standard material lacks it,
 * so it is set here.
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
