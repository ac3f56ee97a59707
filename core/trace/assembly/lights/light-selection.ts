import { allocate } from '../base/per-thread';

/**
 * Probability of selecting each light: by an estimate of its unoccluded contribution to the shading point, mixed with a
 * uniform share. A light that contributes nothing is never selected.
 */

/** Most lights, the environment and the emissive triangles included. */
export const MAX_LIGHTS = 96;
/** Importances at the current shading point; at the vertex the path left last; and of a saved path. */
const here = allocate(96 * 4);
const there = allocate(96 * 4);
const saved = allocate(96 * 4);
/** Each light that may contribute gets at least this share of a uniform probability: the brightest may be occluded. */
const UNIFORM_SHARE: f32 = 0.2;
let n: i32 = 0;

/** Starts over with this many lights; a single light is always selected. */
export function begin(all: i32): void {
  n = all;
  store<f32>(here, 1);
}

/** Sets the estimated contribution of light k; 0 only if it contributes nothing. */
@inline
export function setImportance(k: i32, bright: f32): void {
  store<f32>(here + (<usize>k << 2), bright);
}

/** Turns importances into probabilities. */
export function normalise(): void {
  let sum: f32 = 0;
  let some: f32 = 0;
  for (let k = 0; k < n; k++) {
    const bright = load<f32>(here + (<usize>k << 2));
    sum += bright;
    if (bright > 0) some++;
  }
  const by: f32 = sum > 0 ? (1 - UNIFORM_SHARE) / sum : 0;
  const each: f32 = some > 0 ? UNIFORM_SHARE / some : 0;
  for (let k = 0; k < n; k++) {
    const bright = load<f32>(here + (<usize>k << 2));
    setImportance(k, bright > 0 ? by * bright + each : 0);
  }
}

/** Probability of the selected light, and the random number remapped to 0…1 within it. */
export let probability: f32 = 1;
export let remainder: f32 = 0;

/** Selects a light by a random number, 0…1. */
export function select(which: f32): i32 {
  let k = 0;
  let before: f32 = 0;
  probability = load<f32>(here);
  while (k < n - 1 && which >= before + probability) {
    before += probability;
    probability = load<f32>(here + (<usize>++k << 2));
  }
  remainder = probability > 0 ? min<f32>(1, (which - before) / probability) : 0;
  return k;
}

/** Probability with which light k was selected at the vertex the path left last. */
@inline
export function probabilityAtVertex(k: i32): f32 {
  return load<f32>(there + (<usize>min(k, MAX_LIGHTS - 1) << 2));
}

function copy(to: usize, from: usize): void {
  for (let k = 0; k < n; k++) store<f32>(to + (<usize>k << 2), load<f32>(from + (<usize>k << 2)));
}

/** The path leaves the current shading point: its probabilities are kept for the next hit. */
export function leaveVertex(): void {
  copy(there, here);
}
/** Saves and restores the state of the path. */
export function save(): void {
  copy(saved, there);
}
export function restore(): void {
  copy(there, saved);
}
