import { Registry } from '../declare/registry';
import { widened } from '../declare/widen';
import { fog } from './airs/fog';
import { haze } from './airs/haze';
import { bloom } from './picture/bloom';
import { fringe } from './picture/fringe';
import { grade } from './picture/grade';
import { grain } from './picture/grain';
import { levels } from './picture/levels';
import { look } from './picture/look';
import { vignette } from './picture/vignette';
import { clearBackdrop } from './backdrops/clear';
import { plainBackdrop } from './backdrops/colour';
import { gradientBackdrop } from './backdrops/gradient';
import { imageBackdrop } from './backdrops/image';
import { roundBackdrop } from './backdrops/round';
import { catcher } from './grounds/catcher';
import { sweep } from './grounds/sweep';
import { orbit } from './cameras/orbit';
import type { AirAt, BackdropAt, CameraAt, GroundAt, LightAt, PictureEffectAt, SceneKind } from './kind';
import { area } from './lights/area';
import { ball } from './lights/ball';
import { daylight } from './lights/daylight';
import { gradientLight } from './lights/gradient';
import { panorama } from './lights/panorama';
import { sky } from './lights/sky';
import { spot } from './lights/spot';
import { studio } from './lights/studio';
import { sun } from './lights/sun';

/** Every kind of camera, light, backdrop, air and picture effect, in the order of their menus. A new one is added here and nowhere else. */
export const cameras = new Registry<SceneKind<CameraAt>>('camera', [orbit]);
export const lights = new Registry<SceneKind<LightAt>>('light', [
  studio,
  sky,
  daylight,
  gradientLight,
  panorama,
  sun,
  area,
  ball,
  spot,
]);
export const backdrops = new Registry<SceneKind<BackdropAt>>('backdrop', [
  plainBackdrop,
  gradientBackdrop,
  imageBackdrop,
  roundBackdrop,
  clearBackdrop,
]);
export const grounds = new Registry<SceneKind<GroundAt>>('ground', [catcher, sweep]);
export const airs = new Registry<SceneKind<AirAt>>('air', [fog, haze]);
export const pictureEffects = new Registry<SceneKind<PictureEffectAt>>('picture effect', [
  bloom,
  look,
  grade,
  levels,
  vignette,
  fringe,
  grain,
]);

/** A list of a scene. */
export interface SceneListKind {
  readonly title: string;
  readonly kinds: Registry<SceneKind<unknown>>;
  /** Least and most items. */
  readonly least: number;
  readonly most: number;
  /** Only one of them is on. */
  readonly oneOn?: boolean;
  /** Their order matters. */
  readonly ordered?: boolean;
  /** What of it can be stored for other pieces. */
  readonly keeps?: 'lights' | 'camera';
}

/** The lists of a scene, in the order of the screen. */
export const sceneLists = {
  cameras: { title: 'Cameras', kinds: widened(cameras), least: 1, most: 32, oneOn: true, keeps: 'camera' },
  lights: { title: 'Lights', kinds: widened(lights), least: 0, most: 64, keeps: 'lights' },
  backdrop: { title: 'Backdrop', kinds: widened(backdrops), least: 1, most: 1 },
  ground: { title: 'Ground', kinds: widened(grounds), least: 0, most: 4 },
  air: { title: 'Air', kinds: widened(airs), least: 0, most: 16 },
  picture: { title: 'Picture', kinds: widened(pictureEffects), least: 0, most: 32, ordered: true },
} satisfies Readonly<Record<string, SceneListKind>>;

export type SceneList = keyof typeof sceneLists;

/** The declaration of a scene list. */
export const sceneList = (name: SceneList): SceneListKind => sceneLists[name];

export const sceneListNames = Object.keys(sceneLists) as SceneList[];
