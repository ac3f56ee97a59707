import type { CopyChannel } from '@maypole/core/shape/copy-channels';
import type { Channel, Surface, SurfaceFeature } from '@maypole/core/finish/surface';
import type { ChannelPattern } from '@maypole/core/finish/surface';
import { attribute, mix, normalView, normalViewGeometry, uniform, vec2 } from 'three/tsl';
import {
  AdditiveBlending,
  Color,
  DoubleSide,
  MeshPhysicalNodeMaterial,
  MeshStandardNodeMaterial,
  NormalBlending,
  type Node,
} from 'three/webgpu';
import { groove } from './brushed';
import { bumped } from './bump';
import { MarchedField, type FieldStructure } from '../fields/march';
import type { AmbientOcclusion } from '../lights/ambient-occlusion';
import { mirrorShare } from './specular';
import { PatternNodes, patternsKey } from '../patterns/pattern-nodes';
import { SurfaceHit, type HitSource } from '../patterns/surface-hit';
import { rgb, scalar, type Rgb, type Scalar } from './tsl';

/** What a material is compiled for. Equal structures share a material; everything else of a surface is a uniform. */
export interface SurfaceStructure {
  /** Closed, so that back faces are never visible. */
  readonly closed: boolean;
  /** Channels that copies override. */
  readonly channels: readonly CopyChannel[];
  readonly features: readonly SurfaceFeature[];
  readonly additive: boolean;
  /** Direction of its grooves, if any. */
  readonly grooves: Surface['grooves'];
  /** Patterned channels; their numbers do not matter. */
  readonly patterns: readonly ChannelPattern[];
  /** A holdout: invisible, hiding what is behind. */
  readonly covers?: boolean;
  /** Ambient occlusion. */
  readonly dome?: AmbientOcclusion;
  /** What the shape provides for patterns. */
  readonly from: HitSource;
  /** The distance field it shows, if it is marched instead of drawn as faces. */
  readonly field?: FieldStructure;
}

export function structureKey({
  closed,
  channels,
  features,
  additive,
  grooves,
  patterns,
  covers,
  dome,
  from,
  field,
}: SurfaceStructure): string {
  const way = features.includes('brushed') ? `/${grooves.way} ${grooves.axis}` : '';
  const plain = `${closed ? 'closed' : 'open'}/${channels.join()}/${features.join()}${additive ? '/added' : ''}${covers ? '/covers' : ''}${dome ? '/dome' : ''}${way}${field ? `/${field.form} ${field.cut}` : ''}`;
  const brings = [from.copies && 'copies', from.uv && 'uv', from.crevice && 'crevice'].filter(Boolean).join();
  return patterns.length === 0 ? plain : `${plain}/${brings}/${patternsKey(patterns)}`;
}

/** Instanced attributes of overrides: the last number of each says whether the copy has one. */
export const COPY_ATTRIBUTES = {
  baseColor: { name: 'copyBaseColor', width: 4 },
  roughness: { name: 'copyRoughness', width: 2 },
  metalness: { name: 'copyMetalness', width: 2 },
} as const satisfies Record<CopyChannel, { readonly name: string; readonly width: number }>;

const colourUniform = () => uniform(new Color());
const scalarUniform = () => uniform(0);
type ColourUniform = ReturnType<typeof colourUniform>;
type ScalarUniform = ReturnType<typeof scalarUniform>;

/** Channels as a material reads them: constant, or patterned. */
interface Channels {
  number(channel: Channel, even: Scalar): Scalar;
  colour(channel: Channel, even: Rgb): Rgb;
}

/**
 * How a feature is drawn: its uniforms, assigned to the material's inputs, and how they are set from a surface. A
 * feature that a surface does not use is not in its shader.
 */
type Feature = (
  material: MeshPhysicalNodeMaterial,
  channels: Channels,
  structure: SurfaceStructure,
) => (surface: Surface) => void;

/** Beyond this, in metres, glass looks clear; shaders have no infinity. */
const CLEAR = 1e6;

const features: Readonly<Record<SurfaceFeature, Feature>> = {
  bump(material, { number }) {
    const height = scalarUniform();
    material.normalNode = bumped(number('bump', scalar(height)), rgb(material.normalNode ?? normalView));
    return (s) => void (height.value = s.bump);
  },
  glass(material, { number, colour }) {
    const [transmission, ior, thickness, distance, dispersion] = Array.from({ length: 5 }, scalarUniform);
    const tint = colourUniform();
    material.transmissionNode = number('transmission', scalar(transmission));
    material.iorNode = number('ior', scalar(ior));
    material.thicknessNode = number('thickness', scalar(thickness));
    material.attenuationDistanceNode = number('attenuationDistance', scalar(distance));
    material.attenuationColorNode = colour('attenuationColor', rgb(tint));
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
  coat(material, { number }) {
    const [coat, roughness] = [scalarUniform(), scalarUniform()];
    material.clearcoatNode = number('clearcoat', scalar(coat));
    material.clearcoatRoughnessNode = number('clearcoatRoughness', scalar(roughness)).max(0.01);
    return (s) => {
      coat.value = s.clearcoat;
      roughness.value = s.clearcoatRoughness;
    };
  },
  cloth(material, { number, colour }) {
    const [tint, sheen, roughness] = [colourUniform(), scalarUniform(), scalarUniform()];
    material.sheenNode = colour('sheenColor', rgb(tint)).mul(number('sheen', scalar(sheen)));
    material.sheenRoughnessNode = number('sheenRoughness', scalar(roughness)).max(0.07);
    return (s) => {
      tint.value.set(s.sheenColor);
      sheen.value = s.sheen;
      roughness.value = s.sheenRoughness;
    };
  },
  film(material, { number }) {
    const [film, ior, thickness] = [scalarUniform(), scalarUniform(), scalarUniform()];
    material.iridescenceNode = number('iridescence', scalar(film));
    material.iridescenceIORNode = number('iridescenceIor', scalar(ior));
    material.iridescenceThicknessNode = number('iridescenceThickness', scalar(thickness));
    return (s) => {
      film.value = s.iridescence;
      ior.value = s.iridescenceIor;
      thickness.value = s.iridescenceThickness;
    };
  },
  glow(material, { number, colour }) {
    const light = colourUniform();
    const [strength, tinted] = [scalarUniform(), scalarUniform()];
    // The colour has been set: features apply to a material that has one.
    const own = mix(colour('emissiveColor', rgb(light)), rgb(material.colorNode), tinted);
    material.emissiveNode = own.mul(number('emissiveStrength', scalar(strength)));
    return (s) => {
      light.value.set(s.emissiveColor);
      strength.value = s.emissiveStrength;
      tinted.value = s.emissiveTinted ? 1 : 0;
    };
  },
  veil(material, { number }) {
    const alpha = scalarUniform();
    material.opacityNode = number('alpha', scalar(alpha));
    material.transparent = true;
    // What is behind a translucent surface, its own back included, shows through it.
    material.depthWrite = false;
    return (s) => void (alpha.value = s.alpha);
  },
  brushed(material, { number }, { grooves }) {
    const [amount, turn] = [scalarUniform(), scalarUniform()];
    material.anisotropyNode = vec2(number('anisotropy', scalar(amount)), 0);
    groove(material, grooves, number('anisotropyRotation', scalar(turn)));
    return (s) => {
      amount.value = s.anisotropy;
      turn.value = s.anisotropyRotation;
    };
  },
  /** Wires and dots are objects of their own. */
  wires: () => () => undefined,
  dots: () => () => undefined,
  cut(material, { number }) {
    const [height, level] = [scalarUniform(), scalarUniform()];
    const stays = number('cut', scalar(height)).greaterThanEqual(level);
    material.maskNode = material.maskNode ? (material.maskNode as Node<'bool'>).and(stays) : stays;
    return (s) => {
      height.value = s.cut;
      level.value = s.cutLevel;
    };
  },
};

/**
 * A surface as a material of the graphics card, in linear light: its structure decides what is compiled, and its
 * numbers are uniforms, so that changing a number compiles nothing.
 */
export class SurfaceMaterial {
  readonly material: MeshStandardNodeMaterial;
  private readonly baseColor: ColourUniform = colourUniform();
  private readonly roughness: ScalarUniform = scalarUniform();
  private readonly metalness: ScalarUniform = scalarUniform();
  private readonly specular: ScalarUniform = scalarUniform();
  /** Attributes its patterns need from a shape. */
  readonly reads: { readonly uv: boolean; readonly crevice: boolean };
  /** The distance field it shows, if it is not drawn as faces. */
  readonly field: MarchedField | null;
  private readonly fill: readonly ((surface: Surface) => void)[];
  private readonly patterns: PatternNodes | null;

  constructor(structure: SurfaceStructure) {
    const { closed, channels, features: used, additive, patterns, covers, dome, from, field } = structure;
    const options = { side: DoubleSide, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 };
    const physical = used.length > 0 ? new MeshPhysicalNodeMaterial(options) : null;
    this.material = physical ?? new MeshStandardNodeMaterial(options);
    // Back faces have their normals flipped. On a closed shape only slivers of them are visible, along its silhouette,
    // and flipping those would draw a dark fringe around it.
    const seenThrough = SEEN_THROUGH.some((f) => used.includes(f));
    this.material.normalNode = closed && !seenThrough ? normalViewGeometry : null;
    this.field = field ? new MarchedField(field, this.material) : null;
    // Light passes through glass and translucent surfaces: they cast hardly any shadow.
    this.material.userData.clear = used.includes('veil') || used.includes('glass');
    this.material.colorWrite = !covers;
    this.material.blending = additive ? AdditiveBlending : NormalBlending;
    const hit = new SurfaceHit(from, this.field?.occlusion);
    const nodes = patterns.length > 0 ? new PatternNodes(hit) : null;
    this.patterns = nodes;
    const of = (channel: Channel) => patterns.find((p) => p.channel === channel);
    const way: Channels = {
      number: (channel, even) => nodes?.number(of(channel), even) ?? even,
      colour: (channel, even) => nodes?.colour(of(channel), even) ?? even,
    };
    const own = (channel: CopyChannel) => (channels.includes(channel) ? COPY_ATTRIBUTES[channel].name : null);
    const [tint, rough, metal] = [own('baseColor'), own('roughness'), own('metalness')];
    const colours = tint && attribute<'vec4'>(tint, 'vec4');
    this.material.colorNode = way.colour(
      'baseColor',
      rgb(colours ? mix(this.baseColor, colours.rgb, colours.a) : this.baseColor),
    );
    const number = (channel: CopyChannel & Channel, plain: ScalarUniform, name: string | null) => {
      const pair = name && attribute<'vec2'>(name, 'vec2');
      return way.number(channel, scalar(pair ? mix(plain, pair.x, pair.y) : plain));
    };
    this.material.roughnessNode = number('roughness', this.roughness, rough);
    this.material.metalnessNode = number('metalness', this.metalness, metal);
    mirrorShare(this.material, way.number('specular', scalar(this.specular)));
    this.fill = used.map((name) => features[name](physical!, way, structure));
    dome?.occlude(this.material, scalar(this.material.roughnessNode));
    this.reads = hit.reads;
  }

  update(surface: Surface): void {
    this.baseColor.value.set(surface.baseColor);
    this.roughness.value = surface.roughness;
    this.metalness.value = surface.metalness;
    this.specular.value = surface.specular;
    for (const fill of this.fill) fill(surface);
    this.patterns?.update(surface.patterns);
  }

  dispose(): void {
    this.material.dispose();
    this.patterns?.dispose();
  }
}

/** Features that show a shape's own inside. */
const SEEN_THROUGH: readonly SurfaceFeature[] = ['veil', 'glass', 'cut'];
