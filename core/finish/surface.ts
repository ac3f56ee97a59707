import type { PatternAt } from '../pattern/pattern-at';
import { FINISH } from '../shape/mesh';

/** A kind of face: each may have a finish of its own, and wears the main one where it has none. */
export type FaceKind = keyof typeof FINISH;

export const faceKinds = Object.keys(FINISH) as FaceKind[];

/** The kinds of faces in words. */
export const FACE_WORDS: Readonly<Record<FaceKind, { readonly title: string; readonly help: string }>> = {
  main: { title: 'Finish', help: 'The surface of the ribbon.' },
  inside: { title: 'Inside', help: 'A finish of their own for inner sides of a shell and cut faces.' },
  rods: { title: 'Rods', help: 'A finish of their own for rods of struts and links.' },
  joints: { title: 'Joints', help: 'A finish of their own for joints of struts.' },
};

/**
 * What a drawer must be able to do for a surface; what is not asked for costs nothing. It goes by the parts of
 * the finish and not by their values, so that nothing is compiled while values move.
 */
export type SurfaceFeature =
  'bump' | 'glass' | 'coat' | 'cloth' | 'film' | 'glow' | 'veil' | 'cut' | 'wires' | 'dots' | 'brushed';

/**
 * A surface at a moment, in the channels of the metal/rough material of glTF 2.0 (Khronos Group,
 * section 3.9) and of its extensions KHR_materials_ior, specular, transmission, volume, dispersion,
 * clearcoat, sheen, iridescence, anisotropy and emissive_strength: what every drawer takes, whatever
 * made it. Colours are '#rrggbb', sRGB.
 */
export interface Surface {
  readonly baseColor: string;
  /** 0…1. */
  readonly roughness: number;
  readonly metalness: number;
  /** Strength of the mirror reflection of what is no metal, 0…1. */
  readonly specular: number;
  /** Refractive index, ≥ 1. */
  readonly ior: number;
  /** Share of the light that goes through, 0…1. */
  readonly transmission: number;
  /** Metres of glass behind the surface; 0 for a thin wall. */
  readonly thickness: number;
  readonly attenuationColor: string;
  /** Metres after which white light has become the attenuation colour; Infinity for clear glass. */
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
  /** How far highlights are drawn out across the grooves, 0…1. */
  readonly anisotropy: number;
  /** Radians by which the grooves are turned. */
  readonly anisotropyRotation: number;
  /** The way grooves go, round an axis of the form or along it. */
  readonly grooves: { readonly way: 'round' | 'along'; readonly axis: 'x' | 'y' | 'z' };
  readonly emissiveColor: string;
  /** Candela per square metre, as a factor on white; beyond 1 it glows. */
  readonly emissiveStrength: number;
  /** The light has the base colour, of the copy where it has its own, in place of `emissiveColor`. */
  readonly emissiveTinted: boolean;
  /** Share of what is behind that is covered, 0…1. */
  readonly alpha: number;
  /** Light is added to what is behind, and nothing is covered. */
  readonly additive: boolean;
  /** Metres that the surface seems raised; only its slope, which a pattern makes, is seen. */
  readonly bump: number;
  /** What stands lower than `cutLevel` is not there. */
  readonly cut: number;
  readonly cutLevel: number;
  /** Its edges and curves as lines of the picture; absent, they are not seen. */
  readonly wires?: Wires;
  /** Its points as dots of the picture; absent, they are not seen. */
  readonly dots?: Dots;
  readonly features: readonly SurfaceFeature[];
  /** How channels go over the surface; what is not named is even. */
  readonly patterns: readonly ChannelPattern[];
}

/** Edges and curves as lines of the picture. */
export interface Wires {
  /** '#rrggbb', sRGB, as it is to be in the picture at a strength of 1. */
  readonly colour: string;
  readonly strength: number;
  /** Pixels of a picture 1000 pixels high. */
  readonly width: number;
  /** 0…1, how much is seen of lines behind faces. */
  readonly hidden: number;
  readonly faces: Faces;
}

/** Faces are seen, only hide what is behind them, or are not there. */
export type Faces = 'shown' | 'cover' | 'none';

/** Points as dots of the picture. */
export interface Dots {
  /** '#rrggbb', sRGB, as it is to be in the picture at a strength of 1. */
  readonly colour: string;
  readonly strength: number;
  /** Across, in pixels of a picture 1000 pixels high, or in metres: one of both. */
  readonly pixels?: number;
  readonly metres?: number;
  readonly faces: Faces;
}

/** What becomes of the faces of a surface whose edges or points are seen: each has its say. */
export function facesOf({ wires, dots }: Surface): Faces {
  const said = [wires?.faces, dots?.faces];
  return said.includes('none') ? 'none' : said.includes('cover') ? 'cover' : 'shown';
}

/** How one channel of a surface goes over it. */
export interface ChannelPattern {
  readonly channel: Channel;
  /** In the order in which they lie. */
  readonly layers: readonly PatternAt[];
}

export type Channel = Exclude<keyof Surface, 'features' | 'patterns' | 'wires' | 'dots' | 'grooves'>;

/** What a surface is where no part of its finish says otherwise: the defaults of glTF. */
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
