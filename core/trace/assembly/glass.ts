import { density, facet, hx, hy, hz, lambda } from './facets';
import { beta, exp, log } from './maths';
import { beginChance, chance } from './sampler';
import * as s from './surface';

/**
 * Rough glass: light goes from facet to facet, thrown back or let through by each, until it comes out on one side or the
 * other (E. Heitz, J. Hanika, E. d’Eon & C. Dachsbacher, “Multiple-Scattering Microfacet BSDFs with the Smith Model”,
 * 2016, with heights spread evenly). None of it is lost, however rough the glass is.
 */

/** Facets that light goes to at most; of ten thousand rays at the roughest one goes to more. */
const MOST = 24;

/** Light came out on the other side. */
export let through: bool = false;
/** It has met one facet alone. */
export let once: bool = false;

/** Where light goes. */
let wx: f32 = 0;
let wy: f32 = 0;
let wz: f32 = 0;

/**
 * Takes a direction through or off glass at random, its weights beside it in `surface`. False where it leads nowhere.
 *
 * @param eta index ahead over that behind
 * @param walls both sides of a thin wall mirror, and each other's mirror image
 */
export function sampleGlass(eta: f32, walls: bool, which: f32, u: f32, v: f32): bool {
  return walls ? sampleWall(eta, which, u, v) : sampleBody(eta, which, u, v);
}

/** Mirror shares of a facet, red, green and blue, and of all of them together. */
let fr: f32 = 0;
let fg: f32 = 0;
let fb: f32 = 0;
export let off: f32 = 0;

@inline
function mirrorShares(d: f32, eta: f32, walls: bool): void {
  const f = s.fresnel(d, eta);
  fr = fg = fb = f;
  if (s.film > 0 && f < 1) {
    s.filmShares(eta >= 1 ? d : sqrt<f32>(max<f32>(0, 1 - (1 - d * d) / (eta * eta))), true);
    fr += s.film * (s.filmR - f);
    fg += s.film * (s.filmG - f);
    fb += s.film * (s.filmB - f);
  }
  if (walls) {
    fr = (2 * fr) / (1 + fr);
    fg = (2 * fg) / (1 + fg);
    fb = (2 * fb) / (1 + fb);
  }
  off = min<f32>(1, (fr + fg + fb) / 3);
}

function sampleBody(eta: f32, which: f32, u: f32, v: f32): bool {
  wx = -s.ox;
  wy = -s.oy;
  wz = -s.oz;
  beginChance();
  // How many of the facets are lower: light begins above them all.
  let lower: f32 = 1;
  let outside = true;
  let r: f32 = 1;
  let g: f32 = 1;
  let b: f32 = 1;
  for (let k = 0; k < MOST; k++) {
    // From within all is upside down.
    lower = outside ? climb(lower, wx, wy, wz, chance()) : climb(1 - lower, -wx, -wy, -wz, chance());
    if (lower < 0) {
      through = !outside;
      once = k == 1;
      s.send(wx, wy, wz, r, g, b);
      return through ? wz < 0 : wz > 0;
    }
    if (k > 0) {
      which = chance();
      u = chance();
      v = chance();
    }
    if (outside) facet(s.alphaX, s.alphaY, -wx, -wy, -wz, u, v);
    else {
      lower = 1 - lower;
      facet(s.alphaX, s.alphaY, wx, wy, wz, u, v);
    }
    const side: f32 = outside ? 1 : -1;
    const mx = side * hx;
    const my = side * hy;
    const mz = side * hz;
    const d = min<f32>(1, -(mx * wx + my * wy + mz * wz));
    if (d <= 0) return false;
    const ahead: f32 = outside ? eta : 1 / eta;
    mirrorShares(d, ahead, false);
    if (which < off) {
      const inv: f32 = 1 / off;
      r *= fr * inv;
      g *= fg * inv;
      b *= fb * inv;
      wx += 2 * d * mx;
      wy += 2 * d * my;
      wz += 2 * d * mz;
    } else {
      const inv: f32 = 1 / (1 - off);
      r *= (1 - fr) * inv;
      g *= (1 - fg) * inv;
      b *= (1 - fb) * inv;
      const n: f32 = 1 / ahead;
      const across: f32 = n * d - sqrt<f32>(max<f32>(0, 1 - n * n * (1 - d * d)));
      wx = n * wx + across * mx;
      wy = n * wy + across * my;
      wz = n * wz + across * mz;
      outside = !outside;
    }
    const length: f32 = 1 / sqrt<f32>(wx * wx + wy * wy + wz * wz);
    wx *= length;
    wy *= length;
    wz *= length;
  }
  return false;
}

/**
 * Where light that goes a way among facets, with so many of them lower, meets the next: how many are lower there; −1
 * where it gets out.
 */
function climb(lower: f32, x: f32, y: f32, z: f32, u: f32): f32 {
  if (z > 0.9999) return -1;
  if (z < -0.9999) return u * lower;
  if (abs(z) < 0.0001) return lower;
  const steep = lambda(s.alphaX, s.alphaY, x, y, z);
  if (z < 0) return min<f32>(1, lower * exp(log(max<f32>(1e-9, 1 - u)) / (1 + steep)));
  if (steep < 1e-6) return -1;
  const free = exp(steep * log(max<f32>(1e-9, lower)));
  if (u > 1 - free) return -1;
  return min<f32>(1, lower * exp(-log(max<f32>(1e-9, 1 - u)) / steep));
}

/** A thin wall: what goes through goes on straight, and so does what facets would throw into the wall. */
function sampleWall(eta: f32, which: f32, u: f32, v: f32): bool {
  facet(s.alphaX, s.alphaY, s.ox, s.oy, s.oz, u, v);
  const d = hx * s.ox + hy * s.oy + hz * s.oz;
  if (d <= 0) return false;
  mirrorShares(d, eta, true);
  through = which >= off;
  const x: f32 = 2 * d * hx - s.ox;
  const y: f32 = 2 * d * hy - s.oy;
  const z: f32 = 2 * d * hz - s.oz;
  const more: f32 = through ? 1 / (1 - off) : 1 / max<f32>(1e-9, off);
  s.send(x, y, z, (through ? 1 - fr : fr) * more, (through ? 1 - fg : fg) * more, (through ? 1 - fb : fb) * more);
  if (z <= 0) through = true;
  once = !through;
  return true;
}

/**
 * How likely glass throws light back in a direction above it that meets one facet, and beside in `surface` what it counts
 * then (B. Walter et al., “Microfacet Models for Refraction through Rough Surfaces”, 2007; what facets hide of both ways
 * by E. Heitz, 2014).
 */
export function throwsBack(x: f32, y: f32, z: f32, eta: f32, walls: bool): f32 {
  let mx = x + s.ox;
  let my = y + s.oy;
  let mz = z + s.oz;
  const inv: f32 = 1 / sqrt<f32>(mx * mx + my * my + mz * mz);
  mx *= inv;
  my *= inv;
  mz *= inv;
  mirrorShares(min<f32>(1, mx * s.ox + my * s.oy + mz * s.oz), eta, walls);
  if (off <= 0) return 0;
  const l = lambda(s.alphaX, s.alphaY, s.ox, s.oy, s.oz);
  // A thin wall has light leave that facets throw into it.
  const seen: f32 = 1 + l + (walls ? 0 : lambda(s.alphaX, s.alphaY, x, y, z));
  const each: f32 = 1 / off;
  s.send(x, y, z, fr * each, fg * each, fb * each);
  return (off * density(s.alphaX, s.alphaY, mx, my, mz)) / (4 * s.oz * seen);
}

/** The same of a direction below, through the glass. */
export function letsThrough(x: f32, y: f32, z: f32, eta: f32): f32 {
  let mx = s.ox + eta * x;
  let my = s.oy + eta * y;
  let mz = s.oz + eta * z;
  const inv: f32 = (mz < 0 ? -1 : 1) / sqrt<f32>(mx * mx + my * my + mz * mz);
  mx *= inv;
  my *= inv;
  mz *= inv;
  const d = mx * s.ox + my * s.oy + mz * s.oz;
  const e = -(mx * x + my * y + mz * z);
  if (d <= 0 || e <= 0) return 0;
  mirrorShares(min<f32>(1, d), eta, false);
  const open: f32 = 1 - off;
  const apart = d - eta * e;
  if (open <= 0 || abs(apart) < 1e-5) return 0;
  const each: f32 = 1 / open;
  s.send(x, y, z, (1 - fr) * each, (1 - fg) * each, (1 - fb) * each);
  const facets = density(s.alphaX, s.alphaY, mx, my, mz) * (d / s.oz);
  const seen = beta(lambda(s.alphaX, s.alphaY, s.ox, s.oy, s.oz), lambda(s.alphaX, s.alphaY, x, y, z));
  return (open * facets * seen * eta * eta * e) / (apart * apart);
}
