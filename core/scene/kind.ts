import { widened } from '../declare/widen';
import type { Vec3 } from '../maths/vec3';
import type { Evaluated, Params } from '../declare/params';
import type { Clock } from '../time/loop';

/** A kind of scene item, declared once in its own file: a camera, light, backdrop, air or picture effect. */
export interface SceneKind<At, P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  /** One plain sentence. */
  readonly help: string;
  /** Name of a drawing in `web/ui/parts/icons.tsx`, or path data of one of its own, 24 × 24: "M4 12h16". */
  readonly icon: string;
  readonly params: P;
  /** It can be placed by clicking where it should glance off a surface: it has a position, or a direction. */
  readonly aims?: boolean;
  /** Kinds that share this exclude each other: there is one environment. */
  readonly one?: string;
  /** What renderers get, from its values at a moment; a function of the moment alone, equal one loop later. */
  at(values: Evaluated<P>, clock: Clock): At;
  /** Items it implies, as a sky its sun. */
  also?(values: Evaluated<P>, clock: Clock): readonly At[];
}

function declared<At>() {
  return <const P extends Params>(kind: SceneKind<At, P>): SceneKind<At> => widened(kind);
}

/** A camera at a moment. */
export interface CameraAt {
  readonly position: Vec3;
  readonly target: Vec3;
  /** Millimetres, for a picture 36 mm wide along its longer side. */
  readonly focalLength: number;
  /** Width in metres of the longer side of the picture for parallel rays; 0 for perspective. */
  readonly parallel: number;
  /** Roll in degrees: above 0 the picture turns clockwise. */
  readonly roll: number;
  /** Lens shift right and up, as shares of width and height. */
  readonly shift: readonly [number, number];
  /** Factor on all light. */
  readonly exposure: number;
  /** Lens radius in metres; 0 for a pinhole. */
  readonly lensRadius: number;
  /** Aperture blades, from 3; 0 for a round aperture. */
  readonly blades: number;
  /** Focus distance in metres. */
  readonly focusDistance: number;
  /** The ribbon whose centre is in focus instead, if it is in the picture. */
  readonly focusOn?: string;
  /** Shutter: exposure as a share of the frame interval; 0 for an instant. */
  readonly shutter: number;
}

/** An environment at a moment. Renderers know these types; a kind of light says which one it is. */
export type EnvironmentAt = {
  /** Factor on its radiance. */
  readonly strength: number;
  /** Rotation in degrees about the vertical axis. */
  readonly turn: number;
  /** Tilt in degrees, applied before the rotation. */
  readonly tilt?: number;
  /** Strength of ambient occlusion, 0…1; absent for none. */
  readonly shade?: number;
} & (
  | { readonly type: 'studio' }
  | {
      readonly type: 'sky';
      /** '#rrggbb', sRGB. */
      readonly above: string;
      readonly horizon: string;
      readonly below: string;
      /** Sine of the elevation, up and down, that the horizon's colour reaches, 0…1. */
      readonly edge: number;
    }
  | {
      readonly type: 'daylight';
      /** Unit vector to the sun before rotation. */
      readonly sun: Vec3;
      readonly turbidity: number;
      /** Scene radiance per thousand candela per square metre. */
      readonly scale: number;
      /** Colour of the ground. */
      readonly below: string;
    }
  | {
      readonly type: 'gradient';
      /** Linear light, see rampOf: from straight down to straight up, or once around. */
      readonly ramp: Float32Array;
      readonly round: boolean;
    }
  | {
      readonly type: 'panorama';
      /** Fingerprint of an environment map; empty for none. */
      readonly file: string;
    }
);

/** A light at a moment. */
export type LightAt =
  | EnvironmentAt
  | (LampAt & {
      readonly type: 'sun';
      /** On a surface that faces it, where π makes white white. */
      readonly irradiance: number;
      /** Unit vector to it. */
      readonly from: Vec3;
      /** Angular diameter in degrees. */
      readonly angle: number;
    })
  | (LampAt & { readonly type: 'ball'; readonly intensity: number; readonly at: Vec3; readonly radius: number })
  | (LampAt & {
      readonly type: 'spot';
      readonly intensity: number;
      readonly at: Vec3;
      readonly target: Vec3;
      /** Full cone angle in degrees, and the share of it over which it fades. */
      readonly cone: number;
      readonly soft: number;
      readonly radius: number;
    })
  | (LampAt & {
      readonly type: 'area';
      /** Constant over its face and in every direction. */
      readonly radiance: number;
      readonly at: Vec3;
      readonly target: Vec3;
      readonly width: number;
      readonly height: number;
      /** Rotation in degrees about the direction it faces. */
      readonly turn: number;
      /** Visible to the camera. */
      readonly seen: boolean;
    });

/** A light with a position or direction. */
export type Lamp = Exclude<LightAt, EnvironmentAt>;

interface LampAt {
  /**
   * Linear sRGB, largest component at most 1. Intensities are per steradian, and fall off with the squared distance in
   * metres.
   */
  readonly colour: Vec3;
  readonly shadow: boolean;
}

/** The backdrop. */
export type BackdropAt = {
  /** '#rrggbb', sRGB, as it appears in the picture. */
  readonly colour: string;
} & (
  | {
      readonly type: 'colour';
      /** Absent from files with transparency. */
      readonly clear?: boolean;
    }
  | {
      readonly type: 'gradient';
      /** The other colour. */
      readonly to: string;
      /** Radial, not linear. */
      readonly round: boolean;
      /** Rotation in degrees. */
      readonly angle: number;
      /** Position of the half way point, 0…1. */
      readonly middle: number;
    }
  | {
      readonly type: 'image';
      /** Fingerprint of an image; empty for none. */
      readonly file: string;
      readonly fit: 'cover' | 'contain' | 'stretch';
    }
  /** The environment as the camera sees it, blurred by 0…1. */
  | { readonly type: 'round'; readonly blur: number; readonly strength: number }
);

/** What everything stands on. */
export type GroundAt =
  | {
      readonly type: 'catcher';
      /** Metres. */
      readonly height: number;
      /** Darkness of a full shadow, 0…1. */
      readonly strength: number;
      readonly colour: string;
      readonly reach: number;
      /** Reflectance of the floor, 0…1, and its roughness, 0…1. */
      readonly mirror: number;
      readonly rough: number;
    }
  | {
      readonly type: 'sweep';
      readonly colour: string;
      readonly roughness: number;
      readonly height: number;
      /** Distance to the wall in metres, and radius between floor and wall, at most as large. */
      readonly back: number;
      readonly curve: number;
      /** Rotation of the wall in degrees about the vertical axis. */
      readonly turn: number;
    };

/** A participating medium. */
export type AirAt = {
  /** '#rrggbb', sRGB. */
  readonly colour: string;
  /** Per metre: e^{−extinction · d} of the light remains after d metres. */
  readonly extinction: number;
  /** Height in metres over which extinction falls to 1/e above `ground`; 0 for uniform. */
  readonly height: number;
  readonly ground: number;
} & (
  | {
      readonly type: 'fog';
      /** Clear distance from the camera in metres. */
      readonly begins: number;
    }
  | {
      /** Dust in which lamps are visible. */
      readonly type: 'haze';
      /** Anisotropy g: mean cosine of the scattering angle, −1…1. */
      readonly forward: number;
      /** Radius in metres around the scene. */
      readonly reach: number;
    }
);

/** Picture effects, in the order of the list. */
export type PictureEffectAt =
  | { readonly type: 'bloom'; readonly amount: number; readonly spread: number; readonly from: number }
  | { readonly type: 'vignette'; readonly amount: number; readonly reach: number }
  /** `size` in pixels of a picture 1000 pixels high; `throw` is the seed. */
  | { readonly type: 'grain'; readonly amount: number; readonly size: number; readonly throw: number }
  | { readonly type: 'fringe'; readonly amount: number }
  | {
      readonly type: 'look';
      readonly contrast: number;
      readonly saturation: number;
      readonly warmth: number;
      readonly lift: number;
    }
  /** Per channel, on display values: (gain · (x + lift · (1 − x)))^(1/gamma). */
  | { readonly type: 'grade'; readonly lift: Vec3; readonly gamma: Vec3; readonly gain: Vec3 }
  /** A cubic curve by heights and slopes at 0, ¼ … 1; a factor of 0 or 1 per channel. */
  | {
      readonly type: 'levels';
      readonly heights: readonly number[];
      readonly slopes: readonly number[];
      readonly of: Vec3;
    };

/**
 * Effects that map display values to display values. Bloom acts on light before the view transform, fringe on where the
 * picture is read.
 */
export type DisplayEffectType = Exclude<PictureEffectAt['type'], 'bloom' | 'fringe'>;

/**
 * Declares a kind of camera.
 *
 * @example
 * export const orbit = defineCamera({ kind: 'orbit', title: 'Camera', help, icon: 'camera', params, at: (v) =>
 * ({ position, target, focalLength: v.focalLength }) });
 */
export const defineCamera = declared<CameraAt>();

/**
 * Declares a kind of light.
 *
 * @example
 * export const studio = defineLight({ kind: 'studio', title: 'Studio light', help, icon: 'lamp', params, at:
 * (v) => ({ type: 'studio', strength: v.strength / 100, turn: v.turn }) });
 */
export const defineLight = declared<LightAt>();

/**
 * Declares a kind of backdrop.
 *
 * @example
 * export const plain = defineBackdrop({ kind: 'colour', title: 'Backdrop', help, icon: 'wallpaper', params, at:
 * (v) => ({ type: 'colour', colour: v.colour }) });
 */
export const defineBackdrop = declared<BackdropAt>();

/** Declares a kind of ground, as `defineLight` declares a light. */
export const defineGround = declared<GroundAt>();

/** Declares a kind of air, as `defineLight` declares a light. */
export const defineAir = declared<AirAt>();

/** Declares an effect on the picture, as `defineLight` declares a light. */
export const definePictureEffect = declared<PictureEffectAt>();

/** The active environment: the first in the list. */
export function environmentOf(lights: readonly LightAt[]): EnvironmentAt | undefined {
  return lights.find((l): l is EnvironmentAt => !isLamp(l));
}

export function isLamp(light: LightAt): light is Lamp {
  return 'shadow' in light;
}
