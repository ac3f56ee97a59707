import type { Vec3 } from '../maths/vec3';
import type { Evaluated, Params } from '../declare/params';

/** Something of the scene, declared once in a file of its own: a camera, light, backdrop, air or picture effect. */
export interface SceneKind<At, P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  /** One plain sentence. */
  readonly help: string;
  /** Name of a drawing in `web/ui/parts/icons.tsx`, or path data of one of its own, 24 × 24: "M4 12h16". */
  readonly icon: string;
  readonly params: P;
  /** What the drawers are told of it, from its values at a moment. */
  at(values: Evaluated<P>): At;
}

function declared<At>() {
  return <const P extends Params>(kind: SceneKind<At, P>): SceneKind<At> => kind as unknown as SceneKind<At>;
}

/** A camera at a moment. */
export interface CameraAt {
  readonly position: Vec3;
  readonly target: Vec3;
  /** Millimetres, for a picture 36 mm wide along its longer side. */
  readonly focalLength: number;
}

/** A light at a moment. Drawers know these types; a kind of light says which one it is. */
export type LightAt = {
  readonly type: 'studio';
  /** Factor on its brightness. */
  readonly strength: number;
  /** Degrees about the upright axis. */
  readonly turn: number;
};

/** What is behind everything. */
export type BackdropAt = {
  readonly type: 'colour';
  /** '#rrggbb', sRGB, as it is to be in the picture. */
  readonly colour: string;
};

/** What fills the room. None is declared yet. */
export type AirAt = { readonly type: string };

/** What is done to the finished picture. None is declared yet. */
export type PictureEffectAt = { readonly type: string };

/**
 * Declares a kind of camera.
 *
 * @example
 * export const orbit = defineCamera({ kind: 'orbit', title: 'Camera', help, icon: 'camera', params, at: (v) => ({ position, target, focalLength: v.focalLength }) });
 */
export const defineCamera = declared<CameraAt>();

/**
 * Declares a kind of light.
 *
 * @example
 * export const studio = defineLight({ kind: 'studio', title: 'Studio light', help, icon: 'lamp', params, at: (v) => ({ type: 'studio', strength: v.strength / 100, turn: v.turn }) });
 */
export const defineLight = declared<LightAt>();

/**
 * Declares a kind of backdrop.
 *
 * @example
 * export const plain = defineBackdrop({ kind: 'colour', title: 'Backdrop', help, icon: 'wallpaper', params, at: (v) => ({ type: 'colour', colour: v.colour }) });
 */
export const defineBackdrop = declared<BackdropAt>();

/** Declares a kind of air, as `defineLight` declares a light. */
export const defineAir = declared<AirAt>();

/** Declares an effect on the picture, as `defineLight` declares a light. */
export const definePictureEffect = declared<PictureEffectAt>();
