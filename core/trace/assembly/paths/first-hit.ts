import * as hit from '../trees/intersect';
import * as point from './shading-point';
import * as scene from '../base/scene';
import * as s from '../surfaces/surface';

/** The first hit of a sample, whatever it is: the passes (AOVs) report it. */

/** Albedo, normal, distance from the camera in metres; whether there is a hit. */
export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 0;
export let far: f32 = 0;
export let found: bool = false;
/** Its position; and its ribbon, below 0 for none. */
export let atX: f32 = 0;
export let atY: f32 = 0;
export let atZ: f32 = 0;
export let ribbon: i32 = -1;
/** Number of its copy. */
export let copy: i32 = 0;

export function begin(): void {
  found = false;
}

/** Records a surface hit. */
export function record(gone: f32): void {
  if (found) return;
  found = true;
  r = s.baseR;
  g = s.baseG;
  b = s.baseB;
  x = point.nx;
  y = point.ny;
  z = point.nz;
  far = gone;
  atX = point.px;
  atY = point.py;
  atZ = point.pz;
  const own = scene.copies + <usize>hit.hitCopy * scene.COPY;
  ribbon = load<i32>(own, scene.COPY_RIBBON);
  copy = load<i32>(own, scene.COPY_ID);
}
