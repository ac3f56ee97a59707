import type { CopyChannel } from '@maypole/core/copies/channels';
import type { Surface, SurfaceFeature } from '@maypole/core/finish/surface';
import { attribute, mix, normalViewGeometry, uniform } from 'three/tsl';
import {
  AdditiveBlending,
  Color,
  DoubleSide,
  MeshPhysicalNodeMaterial,
  MeshStandardNodeMaterial,
  NormalBlending,
} from 'three/webgpu';
import { rgb } from './tsl';

/** What a material is compiled for. Equal structures share a material; everything else of a surface is a uniform. */
export interface SurfaceStructure {
  /** Without any border, so that backs of faces are never looked at. */
  readonly closed: boolean;
  /** Channels that copies bring with them. */
  readonly channels: readonly CopyChannel[];
  readonly features: readonly SurfaceFeature[];
  readonly additive: boolean;
}

export function structureKey({ closed, channels, features, additive }: SurfaceStructure): string {
  return `${closed ? 'closed' : 'open'}/${channels.join()}/${features.join()}${additive ? '/added' : ''}`;
}

/** Attributes by which copies bring channels: the last number of each says whether the copy has one of its own. */
export const COPY_ATTRIBUTES = {
  baseColor: { name: 'copyBaseColor', width: 4 },
  roughness: { name: 'copyRoughness', width: 2 },
  metalness: { name: 'copyMetalness', width: 2 },
} as const satisfies Record<CopyChannel, { readonly name: string; readonly width: number }>;

const colourUniform = () => uniform(new Color());
const scalarUniform = () => uniform(0);
type ColourUniform = ReturnType<typeof colourUniform>;
type ScalarUniform = ReturnType<typeof scalarUniform>;

/**
 * How a feature is drawn: the uniforms it needs, put where the material reads them, and how they are
 * filled from a surface. A feature that a surface does not use has no part in its shader.
 */
type Feature = (material: MeshPhysicalNodeMaterial) => (surface: Surface) => void;

/** Beyond this, in metres, glass is clear to the eye; the card has no endless numbers. */
const CLEAR = 1e6;

const features: Readonly<Record<SurfaceFeature, Feature>> = {
  glass(material) {
    const [transmission, ior, thickness, distance, dispersion] = Array.from({ length: 5 }, scalarUniform);
    const tint = colourUniform();
    material.transmissionNode = transmission;
    material.iorNode = ior;
    material.thicknessNode = thickness;
    material.attenuationDistanceNode = distance;
    material.attenuationColorNode = tint;
    material.dispersionNode = dispersion;
    return (s) => {
      transmission.value = s.transmission;
      ior.value = s.ior;
      thickness.value = s.thickness;
      distance.value = Math.min(CLEAR, s.attenuationDistance);
      dispersion.value = s.dispersion;
      tint.value.set(s.attenuationColor);
    };
  },
  coat(material) {
    const [coat, roughness] = [scalarUniform(), scalarUniform()];
    material.clearcoatNode = coat;
    material.clearcoatRoughnessNode = roughness;
    return (s) => {
      coat.value = s.clearcoat;
      roughness.value = Math.max(0.01, s.clearcoatRoughness);
    };
  },
  cloth(material) {
    const [colour, roughness] = [colourUniform(), scalarUniform()];
    material.sheenNode = colour;
    material.sheenRoughnessNode = roughness;
    return (s) => {
      colour.value.set(s.sheenColor).multiplyScalar(s.sheen);
      roughness.value = Math.max(0.07, s.sheenRoughness);
    };
  },
  film(material) {
    const [film, ior, thickness] = [scalarUniform(), scalarUniform(), scalarUniform()];
    material.iridescenceNode = film;
    material.iridescenceIORNode = ior;
    material.iridescenceThicknessNode = thickness;
    return (s) => {
      film.value = s.iridescence;
      ior.value = s.iridescenceIor;
      thickness.value = s.iridescenceThickness;
    };
  },
  glow(material) {
    const light = colourUniform();
    const tinted = scalarUniform();
    // The colour is there already: features are put to a material that has one.
    material.emissiveNode = rgb(light).add(rgb(material.colorNode).mul(tinted));
    return (s) => {
      light.value.set(s.emissiveColor).multiplyScalar(s.emissiveTinted ? 0 : s.emissiveStrength);
      tinted.value = s.emissiveTinted ? s.emissiveStrength : 0;
    };
  },
  veil(material) {
    const alpha = scalarUniform();
    material.opacityNode = alpha;
    material.transparent = true;
    // What is behind a veil, its own far side too, is seen through it.
    material.depthWrite = false;
    return (s) => void (alpha.value = s.alpha);
  },
};

/**
 * A surface as a material of the graphics card, in linear light: its structure decides what is
 * compiled, and its numbers are uniforms, so that changing a number compiles nothing.
 */
export class SurfaceMaterial {
  readonly material: MeshStandardNodeMaterial;
  private readonly baseColor: ColourUniform = colourUniform();
  private readonly roughness: ScalarUniform = scalarUniform();
  private readonly metalness: ScalarUniform = scalarUniform();
  private readonly fill: readonly ((surface: Surface) => void)[];

  constructor({ closed, channels, features: used, additive }: SurfaceStructure) {
    const options = { side: DoubleSide, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 };
    const physical = used.length > 0 ? new MeshPhysicalNodeMaterial(options) : null;
    this.material = physical ?? new MeshStandardNodeMaterial(options);
    // Backs of faces have their normals turned to the eye. On a closed form only slivers of them
    // are ever seen, along its outline, and turning those would draw a dark fringe round it.
    const seenThrough = used.includes('veil') || used.includes('glass');
    this.material.normalNode = closed && !seenThrough ? normalViewGeometry : null;
    // Light goes through glass and veils: they throw no shadow to speak of.
    this.material.userData.clear = seenThrough;
    this.material.blending = additive ? AdditiveBlending : NormalBlending;
    const own = (channel: CopyChannel) => (channels.includes(channel) ? COPY_ATTRIBUTES[channel].name : null);
    const [tint, rough, metal] = [own('baseColor'), own('roughness'), own('metalness')];
    const colours = tint && attribute<'vec4'>(tint, 'vec4');
    this.material.colorNode = colours ? mix(this.baseColor, colours.rgb, colours.a) : this.baseColor;
    const scalar = (plain: ScalarUniform, name: string | null) => {
      const pair = name && attribute<'vec2'>(name, 'vec2');
      return pair ? mix(plain, pair.x, pair.y) : plain;
    };
    this.material.roughnessNode = scalar(this.roughness, rough);
    this.material.metalnessNode = scalar(this.metalness, metal);
    this.fill = used.map((name) => features[name](physical!));
  }

  update(surface: Surface): void {
    this.baseColor.value.set(surface.baseColor);
    this.roughness.value = surface.roughness;
    this.metalness.value = surface.metalness;
    for (const fill of this.fill) fill(surface);
  }

  dispose(): void {
    this.material.dispose();
  }
}
