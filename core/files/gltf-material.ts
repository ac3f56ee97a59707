import type { Surface } from '../finish/surface';
import { hexToLight } from '../maths/srgb';

/** A material of glTF 2.0 as JSON. */
export interface GltfMaterial {
  readonly name: string;
  readonly pbrMetallicRoughness: {
    readonly baseColorFactor: readonly number[];
    readonly metallicFactor: number;
    readonly roughnessFactor: number;
  };
  readonly emissiveFactor: readonly number[];
  readonly alphaMode: 'OPAQUE' | 'BLEND';
  readonly doubleSided: true;
  readonly extensions?: Readonly<Record<string, object>>;
}

const light = hexToLight;

/**
 * The extensions that a surface needs, each only if its values differ from the defaults (Khronos Group, glTF extension
 * registry: KHR_materials_*).
 */
function extensionsOf(s: Surface): Record<string, object> {
  const all: readonly [string, boolean, () => object][] = [
    ['ior', s.ior !== 1.5, () => ({ ior: s.ior })],
    ['specular', s.specular !== 1, () => ({ specularFactor: s.specular })],
    ['transmission', s.transmission > 0, () => ({ transmissionFactor: s.transmission })],
    [
      'volume',
      s.thickness > 0,
      () => ({
        thicknessFactor: s.thickness,
        attenuationColor: light(s.attenuationColor),
        // Infinite if absent.
        ...(Number.isFinite(s.attenuationDistance) ? { attenuationDistance: s.attenuationDistance } : {}),
      }),
    ],
    ['dispersion', s.dispersion > 0, () => ({ dispersion: s.dispersion })],
    [
      'clearcoat',
      s.clearcoat > 0,
      () => ({ clearcoatFactor: s.clearcoat, clearcoatRoughnessFactor: s.clearcoatRoughness }),
    ],
    [
      'sheen',
      s.sheen > 0,
      () => ({ sheenColorFactor: light(s.sheenColor).map((c) => c * s.sheen), sheenRoughnessFactor: s.sheenRoughness }),
    ],
    [
      'iridescence',
      s.iridescence > 0,
      () => ({
        iridescenceFactor: s.iridescence,
        iridescenceIor: s.iridescenceIor,
        iridescenceThicknessMaximum: s.iridescenceThickness,
      }),
    ],
    [
      'anisotropy',
      s.anisotropy > 0,
      () => ({ anisotropyStrength: s.anisotropy, anisotropyRotation: s.anisotropyRotation }),
    ],
    ['emissive_strength', s.emissiveStrength > 1, () => ({ emissiveStrength: s.emissiveStrength })],
  ];
  return Object.fromEntries(
    all.filter(([, needed]) => needed).map(([name, , values]) => [`KHR_materials_${name}`, values()]),
  );
}

/**
 * A surface as a glTF material. Patterns, wires, dots, additive surfaces and cut-outs cannot be expressed and are
 * dropped.
 *
 * @example
 * const { material, extensions } = gltfMaterial('Enamel', surfaceOf(finish, clock));
 */
export function gltfMaterial(
  name: string,
  surface: Surface,
): { readonly material: GltfMaterial; readonly extensions: readonly string[] } {
  const extensions = extensionsOf(surface);
  const emitted = surface.emissiveTinted ? surface.baseColor : surface.emissiveColor;
  const material: GltfMaterial = {
    name,
    pbrMetallicRoughness: {
      baseColorFactor: [...light(surface.baseColor), surface.alpha],
      metallicFactor: surface.metalness,
      roughnessFactor: surface.roughness,
    },
    // The extension carries what exceeds 1.
    emissiveFactor: light(emitted).map((c) => c * Math.min(1, surface.emissiveStrength)),
    alphaMode: surface.alpha < 1 ? 'BLEND' : 'OPAQUE',
    doubleSided: true,
    ...(Object.keys(extensions).length > 0 ? { extensions } : {}),
  };
  return { material, extensions: Object.keys(extensions) };
}
