import { ownRoom } from './own';
import * as scene from './scene';

/** The light that a path has gathered, all of it and by what it comes from. */
export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;

/** What the light comes from: a lamp by its number, then the sky, what glows, and air, floor and backdrop. */
const MOST_SOURCES = 80;
const bySource = ownRoom(MOST_SOURCES * 12);
/** How many there are; 0 where it is not told by what light comes from. */
let sources = 0;
/** Light that has been cut off, as brightness. */
export let cut: f32 = 0;

/** What is added is not counted: it has been once. */
export let deaf: bool = false;

/** Whether what is added counts. */
export function heed(on: bool): void {
  deaf = !on;
}

/** Whether light is told apart by what it comes from. */
export function tellApart(on: bool): void {
  sources = on ? min(MOST_SOURCES, scene.lampCount + 3) : 0;
}

/** Light that came from a source, k from red to blue. */
@inline
export function lightFrom(source: i32, k: usize): f32 {
  return load<f32>(bySource + <usize>source * 12 + (k << 2));
}

/** The number of what is neither lamp, sky nor glow. */
@inline
export function surroundings(): i32 {
  return scene.lampCount + 2;
}

/** Adds light of a source; of what is brighter than may be the rest is left out. */
@inline
export function add(x: f32, y: f32, z: f32, brightest: f32, source: i32): void {
  if (deaf) return;
  const most = max(x, max(y, z));
  if (most > brightest) {
    const k = brightest / most;
    cut += (1 - k) * (0.2126 * x + 0.7152 * y + 0.0722 * z);
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
  cut = 0;
  if (sources > 0) memory.fill(bySource, 0, <usize>sources * 12);
}

/** Nothing that is no number gets into a picture. */
export function mend(): void {
  if (!(r >= 0 && g >= 0 && b >= 0 && r < Infinity && g < Infinity && b < Infinity)) r = g = b = 0;
}
