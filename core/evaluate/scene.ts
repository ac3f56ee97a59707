import type { Piece } from '../piece/piece';
import { finishParams } from '../scene/finish';
import { backdropParams, cameraParams, lightParams } from '../scene/scene';
import { orbitPose, type CameraPose } from '../scene/lens';
import { evaluateValues } from './values';

export interface SceneAt {
  readonly pose: CameraPose;
  /** Millimetres. */
  readonly focalLength: number;
  /** '#rrggbb'. */
  readonly backdrop: string;
  /** Factor on the studio's brightness, and its turn in degrees. */
  readonly light: { readonly strength: number; readonly turn: number };
}

export interface FinishAt {
  readonly colour: string;
  /** 0…1. */
  readonly roughness: number;
  readonly metalness: number;
}

/** Camera, light and backdrop at an unwrapped frame. */
export function evaluateScene(piece: Piece, frame: number): SceneAt {
  const clock = { frame, frames: piece.loop.frames };
  const camera = evaluateValues(cameraParams, piece.scene.camera, clock);
  const light = evaluateValues(lightParams, piece.scene.light, clock);
  return {
    pose: orbitPose(camera.azimuth, camera.elevation, camera.distance, camera.target),
    focalLength: camera.focalLength,
    backdrop: evaluateValues(backdropParams, piece.scene.backdrop, clock).colour,
    light: { strength: light.strength / 100, turn: light.turn },
  };
}

/** The finish of a ribbon at an unwrapped frame. */
export function evaluateFinish(piece: Piece, finish: Piece['ribbons'][number]['finish'], frame: number): FinishAt {
  const v = evaluateValues(finishParams, finish, { frame, frames: piece.loop.frames });
  return { colour: v.colour, roughness: v.roughness / 100, metalness: v.metalness / 100 };
}
