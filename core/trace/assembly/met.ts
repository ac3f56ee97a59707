import * as hit from './intersect';
import * as place from './place';
import * as scene from './scene';
import * as s from './surface';

/** What a sample meets first, whatever it is: what passes tell. */

/** Its base colour, normal, metres from the camera; whether there is anything. */
export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 0;
export let far: f32 = 0;
export let found: bool = false;
/** Where it is; and which ribbon it is of, below 0 for none. */
export let atX: f32 = 0;
export let atY: f32 = 0;
export let atZ: f32 = 0;
export let ribbon: i32 = -1;
/** The number of the copy that it is of. */
export let copy: i32 = 0;

export function begin(): void {
  found = false;
}

/** A surface is met. */
export function meet(gone: f32): void {
  if (found) return;
  found = true;
  r = s.baseR;
  g = s.baseG;
  b = s.baseB;
  x = place.nx;
  y = place.ny;
  z = place.nz;
  far = gone;
  atX = place.px;
  atY = place.py;
  atZ = place.pz;
  const own = scene.copies + <usize>hit.hitCopy * scene.COPY;
  ribbon = load<i32>(own, scene.COPY_RIBBON);
  copy = load<i32>(own, scene.COPY_ID);
}
