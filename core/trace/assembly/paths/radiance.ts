import { allocate } from '../base/per-thread';
import * as scene from '../base/scene';

/** Radiance gathered along a path, in total and by source. */
export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;

/** Sources: one for each lamp, then the environment, emissive surfaces, and the rest (air, floor and backdrop). */
const MAX_SOURCES = 80;
const bySource = allocate(MAX_SOURCES * 12);
/** Number of sources; 0 if radiance is not split by source. */
let sources = 0;
/** Luminance removed by the firefly clamp. */
export let clampedOff: f32 = 0;

/** Additions are ignored: they have been counted before. */
export let muted: bool = false;

/** Sets whether additions count. */
export function setCounting(on: bool): void {
  muted = !on;
}

/** Sets whether radiance is split by source. */
export function splitBySource(on: bool): void {
  sources = on ? min(MAX_SOURCES, scene.lampCount + 3) : 0;
}

/** Radiance from a source, channel k from red to blue. */
@inline
export function radianceFrom(source: i32, k: usize): f32 {
  return load<f32>(bySource + <usize>source * 12 + (k << 2));
}

/** Index of the source that is neither lamp, environment nor emissive surface. */
@inline
export function otherSource(): i32 {
  return scene.lampCount + 2;
}

/** Adds radiance of a source, limited to the firefly clamp. */
@inline
export function add(x: f32, y: f32, z: f32, fireflyClamp: f32, source: i32): void {
  if (muted) return;
  const most = max(x, max(y, z));
  if (most > fireflyClamp) {
    const k = fireflyClamp / most;
    clampedOff += (1 - k) * (0.2126 * x + 0.7152 * y + 0.0722 * z);
    x *= k;
    y *= k;
    z *= k;
  }
  r += x;
  g += y;
  b += z;
  if (sources == 0) return;
  const at = bySource + <usize>min(source, sources - 1) * 12;
  store<f32>(at, load<f32>(at) + x);
  store<f32>(at, load<f32>(at, 4) + y, 4);
  store<f32>(at, load<f32>(at, 8) + z, 8);
}

export function begin(): void {
  r = g = b = 0;
  clampedOff = 0;
  if (sources > 0) memory.fill(bySource, 0, <usize>sources * 12);
}

/** Drops NaN and infinite samples. */
export function dropNonFinite(): void {
  if (!(r >= 0 && g >= 0 && b >= 0 && r < Infinity && g < Infinity && b < Infinity)) r = g = b = 0;
}
