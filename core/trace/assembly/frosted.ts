import * as glass from './glass';
import * as lamp from './lamps';
import * as media from './media';
import * as place from './place';
import * as scene from './scene';
import * as s from './surface';
import { byLamp } from './weigh';

/**
 * Light of a lamp that one facet of rough glass throws back or lets through, so that it need not be met by chance. Light
 * that has gone from facet to facet, and what would be dimmed on its way through bodies, is met by chance alone.
 */

/** Less likely directions are left to chance: nearly nothing comes of them. */
const LEAST: f32 = 0.001;
/** Alpha of GGX below which a mirror is too sharp for a light that is a mere point. */
const SHARP: f32 = 0.0025;

/** The light as if nothing stood before the lamp, and from where on that is looked at. */
export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 0;

/** The glass where the path is: its index ahead over that behind, and whether it is a thin wall. */
let eta: f32 = 1;
let thin: bool = false;
/** Whether light is asked for that it throws back, and that it lets through. */
let off: bool = false;
let through: bool = false;
/** A floor that may be seen through the glass: what comes through it from below is left to chance. */
let floor: bool = false;

/**
 * Comes to glass.
 *
 * @param onFloor a floor lies below, which is seen through glass alone
 */
export function arrive(index: f32, wall: bool, onFloor: bool): void {
  eta = index;
  thin = wall;
  floor = onFloor;
  off = wall ? !media.absorbs() : place.front && !media.absorbs();
  through = !wall && !place.front && media.isLast() && abs(index - 1) > 0.001;
}

/**
 * Takes one lamp. Whether there is light of it.
 *
 * @param sky light of the sky is seen through the glass, and not a backdrop
 */
export function turns(which: f32, u: f32, v: f32, sky: bool): bool {
  if (!off && !through) return false;
  if (!lamp.take(which, place.px, place.py, place.pz, u, v)) return false;
  const point = lamp.likely == 0 || !lamp.shadows;
  if (point && s.alphaY < SHARP) return false;
  const out = lamp.lx * place.gx + lamp.ly * place.gy + lamp.lz * place.gz;
  if (out == 0) return false;
  const crosses = out < 0;
  if (crosses && !sky && lamp.taken == scene.lampCount) return false;
  if (crosses && floor && lamp.ly < 0) return false;
  const own = likelihood(
    lamp.lx * place.tx + lamp.ly * place.ty + lamp.lz * place.tz,
    lamp.lx * place.bx + lamp.ly * place.by + lamp.lz * place.bz,
    lamp.lx * place.nx + lamp.ly * place.ny + lamp.lz * place.nz,
    crosses,
  );
  if (own <= 0) return false;
  const weight: f32 = point ? own : own * byLamp(lamp.likely, own);
  r = weight * s.weightR * lamp.lightR;
  g = weight * s.weightG * lamp.lightG;
  b = weight * s.weightB * lamp.lightB;
  if (crosses) {
    // Light goes in and out again, and is coloured once.
    r *= sqrt<f32>(s.baseR);
    g *= sqrt<f32>(s.baseG);
    b *= sqrt<f32>(s.baseB);
  }
  const begins = place.apart();
  const side: f32 = crosses ? -begins : begins;
  x = place.px + side * place.gx;
  y = place.py + side * place.gy;
  z = place.pz + side * place.gz;
  return true;
}

/** How likely the direction was that the glass has sent light in; −1 where no lamp was asked for it. */
export function likelySent(dy: f32): f32 {
  if (!glass.once) return -1;
  if (glass.through && floor && dy < 0) return -1;
  const own = likelihood(s.ix, s.iy, s.iz, glass.through);
  return own > 0 ? own : -1;
}

/** How likely one facet sends light in a direction, and what it counts beside in `surface`; 0 where that is left to chance. */
function likelihood(lx: f32, ly: f32, lz: f32, crosses: bool): f32 {
  if (crosses ? !through || lz >= 0 : !off || lz <= 0) return 0;
  const own = crosses ? glass.letsThrough(lx, ly, lz, eta) : glass.throwsBack(lx, ly, lz, eta, thin);
  return own < LEAST ? 0 : own;
}
