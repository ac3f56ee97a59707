import type { Piece } from '../piece/piece';
import { FINISH } from '../shape/mesh';
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
  /** Finishes of other kinds of faces, by their number in FINISH; a missing one is as the first. */
  readonly others?: Readonly<Record<number, FinishAt>>;
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
  const others: Record<number, FinishAt> = {};
  if (v.insideOwn) others[FINISH.inside] = { colour: v.insideColour, roughness: v.insideRoughness / 100, metalness: v.insideMetalness / 100 };
  if (v.rodsOwn) others[FINISH.rods] = { colour: v.rodsColour, roughness: v.rodsRoughness / 100, metalness: v.rodsMetalness / 100 };
  if (v.jointsOwn) others[FINISH.joints] = { colour: v.jointsColour, roughness: v.jointsRoughness / 100, metalness: v.jointsMetalness / 100 };
  return { colour: v.colour, roughness: v.roughness / 100, metalness: v.metalness / 100, others };
}
