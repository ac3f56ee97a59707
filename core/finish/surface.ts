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
 * A surface at a moment, in the channels of the metal/rough material of glTF 2.0 (Khronos Group,
 * section 3.9) and its extensions: what every drawer takes, whatever made it.
 */
export interface Surface {
  /** '#rrggbb', sRGB. */
  readonly baseColor: string;
  /** 0…1. */
  readonly roughness: number;
  readonly metalness: number;
}

export type Channel = keyof Surface;

/** What a surface is where no part of its finish says otherwise. */
export const PLAIN_SURFACE: Surface = { baseColor: '#FFFFFF', roughness: 1, metalness: 0 };
