import * as point from './shading-point';
import * as s from '../surfaces/surface';

/**
 * Denoiser features: what the most likely continuation of a sample shows first that is neither clear glass nor a
 * mirror, so that outlines seen through glass or in a mirror are preserved.
 */

/** Microfacets up to this alpha show what is behind or before them (a roughness of 0.14). */
const SPECULAR_ALPHA: f32 = 0.02;
/** Distance in metres added where nothing is hit. */
const MISS_DISTANCE: f32 = 100;

/**
 * Albedo, tinted by glass and mirrors on the way; normal, averaged with that of the first hit, which has outlines too;
 * path length in metres.
 */
export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 0;
export let far: f32 = 0;
/** Something was hit. */
export let found: bool = false;

/** Whether features were recorded: not if the path took the less likely continuation. */
export let valid: bool = false;

let seeking: bool = true;
/** Normal of the first hit, and the tint of glass and mirrors so far. */
let firstX: f32 = 0;
let firstY: f32 = 0;
let firstZ: f32 = 0;
let tintR: f32 = 1;
let tintG: f32 = 1;
let tintB: f32 = 1;

export function begin(): void {
  found = valid = false;
  seeking = true;
  tintR = tintG = tintB = 1;
}

/** The last hit is what is seen: later hits are ignored. */
@inline
export function stop(): void {
  seeking = false;
}

/** Records a surface hit. */
export function recordHit(gone: f32): void {
  if (!seeking) return;
  if (!found) {
    firstX = point.nx;
    firstY = point.ny;
    firstZ = point.nz;
  }
  found = valid = true;
  r = tintR * s.baseR;
  g = tintG * s.baseG;
  b = tintB * s.baseB;
  x = 0.5 * (point.nx + firstX);
  y = 0.5 * (point.ny + firstY);
  z = 0.5 * (point.nz + firstZ);
  far = gone;
}

/** Records that a direction hits nothing more. */
export function recordMiss(dx: f32, dy: f32, dz: f32, gone: f32): void {
  if (!seeking || !found) return;
  r = tintR;
  g = tintG;
  b = tintB;
  x = 0.5 * (firstX - dx);
  y = 0.5 * (firstY - dy);
  z = 0.5 * (firstZ - dz);
  far = gone + MISS_DISTANCE;
}

/** The path leaves a surface: behind clear glass and mirrors the next hit counts. */
export function recordBounce(clear: bool, pdf: bool, tinted: bool): void {
  if (!seeking) return;
  if (!clear || s.alphaX > SPECULAR_ALPHA) seeking = false;
  else if (!pdf) seeking = valid = false;
  else if (tinted) {
    tintR *= s.baseR;
    tintG *= s.baseG;
    tintB *= s.baseB;
  }
}
