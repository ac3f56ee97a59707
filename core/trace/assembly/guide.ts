import * as place from './place';
import * as s from './surface';

/**
 * What grain is taken out by: what the likeliest way of a sample shows first that is neither clear glass nor a mirror,
 * so that what stands behind glass, or in a mirror, has its outlines there.
 */

/** Facets as steep as this, or less, show what is behind or before them (a roughness of 0.14). */
const CLEAR: f32 = 0.02;
/** Metres more to what is seen where nothing stands. */
const BEYOND: f32 = 100;

/**
 * The colour of what is seen, through that of glass and mirrors before it; its normal, in the mean with that of what is
 * met first, which has outlines, too; metres that light comes.
 */
export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 0;
export let far: f32 = 0;
/** Something stands there. */
export let found: bool = false;

/** Whether it is told what is seen: it is not where the path went on the way that is not the likely one. */
export let told: bool = false;

let seeking: bool = true;
/** The normal of what is met first, and the colour of glass and mirrors on the way. */
let firstX: f32 = 0;
let firstY: f32 = 0;
let firstZ: f32 = 0;
let wayR: f32 = 1;
let wayG: f32 = 1;
let wayB: f32 = 1;

export function begin(): void {
  found = told = false;
  seeking = true;
  wayR = wayG = wayB = 1;
}

/** What has been met is what is seen: nothing behind it is. */
@inline
export function end(): void {
  seeking = false;
}

/** A surface is met. */
export function meet(gone: f32): void {
  if (!seeking) return;
  if (!found) {
    firstX = place.nx;
    firstY = place.ny;
    firstZ = place.nz;
  }
  found = told = true;
  r = wayR * s.baseR;
  g = wayG * s.baseG;
  b = wayB * s.baseB;
  x = 0.5 * (place.nx + firstX);
  y = 0.5 * (place.ny + firstY);
  z = 0.5 * (place.nz + firstZ);
  far = gone;
}

/** Nothing more is met in a direction. */
export function meetNothing(dx: f32, dy: f32, dz: f32, gone: f32): void {
  if (!seeking || !found) return;
  r = wayR;
  g = wayG;
  b = wayB;
  x = 0.5 * (firstX - dx);
  y = 0.5 * (firstY - dy);
  z = 0.5 * (firstZ - dz);
  far = gone + BEYOND;
}

/** The path goes on from a surface: where that is clear glass or a mirror, what comes next is what is seen. */
export function goOn(clear: bool, likely: bool, tinted: bool): void {
  if (!seeking) return;
  if (!clear || s.alphaX > CLEAR) seeking = false;
  else if (!likely) seeking = told = false;
  else if (tinted) {
    wayR *= s.baseR;
    wayG *= s.baseG;
    wayB *= s.baseB;
  }
}
