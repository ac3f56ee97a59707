import { widened } from '../declare/widen';
import type { Vec3 } from '../maths/vec3';
import type { Evaluated, Params } from '../declare/params';
import type { Clock } from '../time/loop';

/** Something of the scene, declared once in a file of its own: a camera, light, backdrop, air or picture effect. */
export interface SceneKind<At, P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  /** One plain sentence. */
  readonly help: string;
  /** Name of a drawing in `web/ui/parts/icons.tsx`, or path data of one of its own, 24 × 24: "M4 12h16". */
  readonly icon: string;
  readonly params: P;
  /** It may be placed by where it is to glance on a form: it has a place, or a direction. */
  readonly aims?: boolean;
  /** Of kinds that share this, one is on at a time: there is one sky round everything. */
  readonly one?: string;
  /** What the drawers are told of it, from its values at a moment; a function of the moment alone, and the same a loop later. */
  at(values: Evaluated<P>, clock: Clock): At;
  /** Further ones that come with it, as the sun with its sky. */
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
  /** Metres across the longer side of the picture where rays are parallel; 0 for a perspective by the focal length. */
  readonly parallel: number;
  /** Degrees by which it is turned about the way it looks: above 0 what is seen turns clockwise. */
  readonly roll: number;
  /** Shares of width and height by which the picture moves over the film, right and up. */
  readonly shift: readonly [number, number];
  /** Factor on all light. */
  readonly exposure: number;
  /** Metres; 0 for a pinhole. */
  readonly lensRadius: number;
  /** Corners of the lens opening, from 3; 0 for a round one. */
  readonly blades: number;
  /** Metres along the way it looks, at which the picture is sharp. */
  readonly focusDistance: number;
  /** The ribbon whose middle is sharp in place of that distance, where it stands in the picture. */
  readonly focusOn?: string;
  /** How long a frame is exposed, as a share of the time from frame to frame; 0 for an instant. */
  readonly shutter: number;
}

/** What lights from all round at a moment. Drawers know these types; a kind of light says which one it is. */
export type EnvironmentAt = {
  /** Factor on its brightness. */
  readonly strength: number;
  /** Degrees about the upright axis. */
  readonly turn: number;
  /** Degrees by which it leans forward before it is turned. */
  readonly tilt?: number;
  /** How much of it is kept out of corners, 0…1; absent, nothing is. */
  readonly shade?: number;
} & (
  | { readonly type: 'studio' }
  | {
      readonly type: 'sky';
      /** '#rrggbb', sRGB. */
      readonly above: string;
      readonly horizon: string;
      readonly below: string;
      /** Sine of the height up and down to which the horizon's colour reaches, 0…1. */
      readonly edge: number;
    }
  | {
      readonly type: 'daylight';
      /** Unit vector to the sun as it stands before it is turned. */
      readonly sun: Vec3;
      readonly turbidity: number;
      /** Light of the picture for a thousand candela per square metre. */
      readonly scale: number;
      /** Colour of the ground. */
      readonly below: string;
    }
  | {
      readonly type: 'gradient';
      /** Linear light, see rampOf: from straight below to straight above, or once round. */
      readonly ramp: Float32Array;
      readonly round: boolean;
    }
  | {
      readonly type: 'panorama';
      /** Fingerprint of a picture of light; empty for none. */
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
      /** Degrees its disc covers. */
      readonly angle: number;
    })
  | (LampAt & { readonly type: 'ball'; readonly intensity: number; readonly at: Vec3; readonly radius: number })
  | (LampAt & {
      readonly type: 'spot';
      readonly intensity: number;
      readonly at: Vec3;
      readonly target: Vec3;
      /** Full angle in degrees, and the share of it over which it fades. */
      readonly cone: number;
      readonly soft: number;
      readonly radius: number;
    })
  | (LampAt & {
      readonly type: 'area';
      /** Per steradian and square metre of its face, the same all over and into every direction. */
      readonly radiance: number;
      readonly at: Vec3;
      readonly target: Vec3;
      readonly width: number;
      readonly height: number;
      /** Degrees about the way it shines. */
      readonly turn: number;
      /** The camera sees it. */
      readonly seen: boolean;
    });

/** What lights of itself from somewhere. */
export type Lamp = Exclude<LightAt, EnvironmentAt>;

interface LampAt {
  /** Linear sRGB, its largest component at most 1. Intensities are per steradian, and fall with the square of the distance in metres. */
  readonly colour: Vec3;
  readonly shadow: boolean;
}

/** What is behind everything. */
export type BackdropAt = {
  /** '#rrggbb', sRGB, as it is to be in the picture. */
  readonly colour: string;
} & (
  | {
      readonly type: 'colour';
      /** It is not there in files that can be see-through. */
      readonly clear?: boolean;
    }
  | {
      readonly type: 'gradient';
      /** The other colour. */
      readonly to: string;
      /** From the middle outwards, not from edge to edge. */
      readonly round: boolean;
      /** Degrees by which the line is turned. */
      readonly angle: number;
      /** Share of the way, 0…1, at which it is half way over. */
      readonly middle: number;
    }
  | {
      readonly type: 'image';
      /** Fingerprint of a picture; empty for none. */
      readonly file: string;
      readonly fit: 'cover' | 'contain' | 'stretch';
    }
  /** The surroundings as the camera sees them, 0…1 out of focus. */
  | { readonly type: 'round'; readonly blur: number; readonly strength: number }
);

/** What everything stands on. */
export type GroundAt =
  | {
      readonly type: 'catcher';
      /** Metres. */
      readonly height: number;
      /** How dark a full shadow is, 0…1. */
      readonly strength: number;
      readonly colour: string;
      readonly reach: number;
      /** How much of what stands on it is mirrored, 0…1, and how rough the mirror is, 0…1. */
      readonly mirror: number;
      readonly rough: number;
    }
  | {
      readonly type: 'sweep';
      readonly colour: string;
      readonly roughness: number;
      readonly height: number;
      /** Metres from the middle to the wall, and the radius with which the floor becomes it, at most as much. */
      readonly back: number;
      readonly curve: number;
      /** Degrees round the upright axis of the way that the wall looks. */
      readonly turn: number;
    };

/** What fills the room. */
export type AirAt = {
  /** '#rrggbb', sRGB. */
  readonly colour: string;
  /** Per metre: e^{−extinction · d} of the light is left after d metres. */
  readonly extinction: number;
  /** Metres of height in which the extinction falls to 1/e above `ground`; 0 for none. */
  readonly height: number;
  readonly ground: number;
} & (
  | {
      readonly type: 'fog';
      /** Metres from the camera that are clear. */
      readonly begins: number;
    }
  | {
      /** Dust that lamps are seen in. */
      readonly type: 'haze';
      /** Mean cosine of the angle by which it turns light, −1…1. */
      readonly forward: number;
      /** Metres from the middle of what stands there. */
      readonly reach: number;
    }
);

/** What is done to the finished picture, in the order of the list. */
export type PictureEffectAt =
  | { readonly type: 'bloom'; readonly amount: number; readonly spread: number; readonly from: number }
  | { readonly type: 'vignette'; readonly amount: number; readonly reach: number }
  /** `size` in pixels of a picture 1000 pixels high; `throw` tells one grain from another. */
  | { readonly type: 'grain'; readonly amount: number; readonly size: number; readonly throw: number }
  | { readonly type: 'fringe'; readonly amount: number }
  | {
      readonly type: 'look';
      readonly contrast: number;
      readonly saturation: number;
      readonly warmth: number;
      readonly lift: number;
    }
  /** Each for red, green and blue, on display values: (gain · (x + lift · (1 − x)))^(1/gamma). */
  | { readonly type: 'grade'; readonly lift: Vec3; readonly gamma: Vec3; readonly gain: Vec3 }
  /** A cubic curve by heights and slopes at 0, ¼ … 1; factors 0 or 1 for red, green and blue. */
  | {
      readonly type: 'levels';
      readonly heights: readonly number[];
      readonly slopes: readonly number[];
      readonly of: Vec3;
    };

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

/** The surroundings that light: the first in the list. */
export function environmentOf(lights: readonly LightAt[]): EnvironmentAt | undefined {
  return lights.find((l): l is EnvironmentAt => !isLamp(l));
}

export function isLamp(light: LightAt): light is Lamp {
  return 'shadow' in light;
}
