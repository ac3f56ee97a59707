import type { AirAt, BackdropAt, CameraAt, GroundAt, LightAt, PictureEffectAt } from './kind';

/** The scene at a moment, as every renderer takes it. */
export interface SceneAt {
  readonly camera: CameraAt;
  readonly lights: readonly LightAt[];
  readonly backdrop: BackdropAt;
  readonly ground: readonly GroundAt[];
  readonly air: readonly AirAt[];
  readonly picture: readonly PictureEffectAt[];
}
