import { Registry } from '../declare/registry';
import { plainBackdrop } from './backdrops/colour';
import { orbit } from './cameras/orbit';
import type { AirAt, BackdropAt, CameraAt, LightAt, PictureEffectAt, SceneKind } from './kind';
import { studio } from './lights/studio';

/** Every kind of camera, light, backdrop, air and picture effect, in the order of their menus. A new one is added here and nowhere else. */
export const cameras = new Registry<SceneKind<CameraAt>>('camera', [orbit]);
export const lights = new Registry<SceneKind<LightAt>>('light', [studio]);
export const backdrops = new Registry<SceneKind<BackdropAt>>('backdrop', [plainBackdrop]);
export const airs = new Registry<SceneKind<AirAt>>('air', []);
export const pictureEffects = new Registry<SceneKind<PictureEffectAt>>('picture effect', []);

/** The lists of a scene, in the order of the screen: their title, the kinds of their items, and how many there are at least and at most. */
export const sceneLists = {
  cameras: { title: 'Cameras', kinds: cameras as Registry<SceneKind<unknown>>, least: 1, most: 32 },
  lights: { title: 'Lights', kinds: lights as Registry<SceneKind<unknown>>, least: 0, most: 64 },
  backdrop: { title: 'Backdrop', kinds: backdrops as Registry<SceneKind<unknown>>, least: 1, most: 1 },
  air: { title: 'Air', kinds: airs as Registry<SceneKind<unknown>>, least: 0, most: 16 },
  picture: { title: 'Picture', kinds: pictureEffects as Registry<SceneKind<unknown>>, least: 0, most: 32 },
} as const;

export type SceneList = keyof typeof sceneLists;

export const sceneListNames = Object.keys(sceneLists) as SceneList[];
