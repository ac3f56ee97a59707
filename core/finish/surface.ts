import type { PatternAt } from '../pattern/pattern-at';
import { FINISH } from '../shape/mesh';

/** A face kind: each may have its own finish, and otherwise uses the main one. */
export type FaceKind = keyof typeof FINISH;

export const faceKinds = Object.keys(FINISH) as FaceKind[];

/** Face kinds in words. */
export const FACE_WORDS: Readonly<Record<FaceKind, { readonly title: string; readonly help: string }>> = {
  main: { title: 'Finish', help: 'The surface of the ribbon.' },
  inside: { title: 'Inside', help: 'A finish of their own for inner sides of a shell and cut faces.' },
  rods: { title: 'Rods', help: 'A finish of their own for rods of struts and links.' },
  joints: { title: 'Joints', help: 'A finish of their own for joints of struts.' },
};

/**
 * What a renderer must support for a surface; unused features cost nothing. They follow from the parts of the finish
 * and not from their values, so that nothing is compiled while values move.
 */
export type SurfaceFeature =
  'bump' | 'glass' | 'coat' | 'cloth' | 'film' | 'glow' | 'veil' | 'cut' | 'wires' | 'dots' | 'brushed';

/**
 * A surface at a moment, in the channels of the metallic-roughness material of glTF 2.0 (Khronos Group, section 3.9)
 * and its extensions KHR_materials_ior, specular, transmission, volume, dispersion, clearcoat, sheen, iridescence,
 * anisotropy and emissive_strength: what every renderer takes. Colours are '#rrggbb', sRGB.
 */
export interface Surface {
  readonly baseColor: string;
  /** 0…1. */
  readonly roughness: number;
  readonly metalness: number;
  /** Strength of the dielectric's specular reflection, 0…1. */
  readonly specular: number;
  /** Index of refraction, ≥ 1. */
  readonly ior: number;
  /** Share of light transmitted, 0…1. */
  readonly transmission: number;
  /** Metres of glass behind the surface; 0 for a thin wall. */
  readonly thickness: number;
  readonly attenuationColor: string;
  /** Distance in metres at which white light takes the attenuation colour; Infinity for clear glass. */
  readonly attenuationDistance: number;
  /** 20 divided by the Abbe number; 0 for none. */
  readonly dispersion: number;
  readonly clearcoat: number;
  readonly clearcoatRoughness: number;
  readonly sheenColor: string;
  /** Factor on the sheen, 0…1. */
  readonly sheen: number;
  readonly sheenRoughness: number;
  /** Strength of the thin film, 0…1. */
  readonly iridescence: number;
  readonly iridescenceIor: number;
  /** Nanometres. */
  readonly iridescenceThickness: number;
  /** Anisotropy of highlights across the grooves, 0…1. */
  readonly anisotropy: number;
  /** Rotation of the grooves in radians. */
  readonly anisotropyRotation: number;
  /** Direction of the grooves, around an axis of the form or along it. */
  readonly grooves: { readonly way: 'round' | 'along'; readonly axis: 'x' | 'y' | 'z' };
  readonly emissiveColor: string;
  /** Factor on emission; beyond 1 it glows. */
  readonly emissiveStrength: number;
  /** Emission has the base colour, with the copy's override, in place of `emissiveColor`. */
  readonly emissiveTinted: boolean;
  /** Opacity, 0…1. */
  readonly alpha: number;
  /** Its light is added to what is behind; it covers nothing. */
  readonly additive: boolean;
  /** Apparent height in metres; only its slope, made by a pattern, is visible. */
  readonly bump: number;
  /** Parts lower than `cutLevel` are cut away. */
  readonly cut: number;
  readonly cutLevel: number;
  /** Edges and curves as lines of the picture; absent, they are not shown. */
  readonly wires?: Wires;
  /** Points as dots of the picture; absent, they are not shown. */
  readonly dots?: Dots;
  readonly features: readonly SurfaceFeature[];
  /** Patterned channels; others are uniform. */
  readonly patterns: readonly ChannelPattern[];
}

/** Edges and curves as lines of the picture. */
export interface Wires {
  /** '#rrggbb', sRGB, as it appears in the picture at a strength of 1. */
  readonly colour: string;
  readonly strength: number;
  /** In pixels of a picture 1000 pixels high. */
  readonly width: number;
  /** Visibility of lines behind faces, 0…1. */
  readonly hidden: number;
  readonly faces: Faces;
}

/** Faces are shown, hide what is behind them, or are absent. */
export type Faces = 'shown' | 'cover' | 'none';

/** Points as dots of the picture. */
export interface Dots {
  /** '#rrggbb', sRGB, as it appears in the picture at a strength of 1. */
  readonly colour: string;
  readonly strength: number;
  /** Diameter, in pixels of a picture 1000 pixels high, or in metres: one of both. */
  readonly pixels?: number;
  readonly metres?: number;
  readonly faces: Faces;
}

/** How faces are shown, combined from wires and dots. */
export function facesOf({ wires, dots }: Surface): Faces {
  const said = [wires?.faces, dots?.faces];
  return said.includes('none') ? 'none' : said.includes('cover') ? 'cover' : 'shown';
}

/** The patterns of one channel. */
export interface ChannelPattern {
  readonly channel: Channel;
  /** In the order in which they apply. */
  readonly layers: readonly PatternAt[];
}

export type Channel = Exclude<keyof Surface, 'features' | 'patterns' | 'wires' | 'dots' | 'grooves'>;

/** The default surface, as in glTF. */
export const PLAIN_SURFACE: Surface = {
  baseColor: '#FFFFFF',
  roughness: 1,
  metalness: 0,
  specular: 1,
  ior: 1.5,
  transmission: 0,
  thickness: 0,
  attenuationColor: '#FFFFFF',
  attenuationDistance: Infinity,
  dispersion: 0,
  clearcoat: 0,
  clearcoatRoughness: 0,
  sheenColor: '#FFFFFF',
  sheen: 0,
  sheenRoughness: 0,
  iridescence: 0,
  iridescenceIor: 1.3,
  iridescenceThickness: 400,
  anisotropy: 0,
  anisotropyRotation: 0,
  grooves: { way: 'round', axis: 'y' },
  emissiveColor: '#000000',
  emissiveStrength: 0,
  emissiveTinted: false,
  alpha: 1,
  additive: false,
  bump: 0,
  cut: 1,
  cutLevel: 0,
  features: [],
  patterns: [],
};
