import { distribution, sampleVisibleNormal, hx, hy, hz, lambda } from './microfacet';
import { beta, exp, log } from '../base/maths';
import { beginRandom, random } from '../base/sampler';
import * as s from './surface';

/**
 * Rough dielectric: a random walk on microfacets, reflected or refracted by each, until the path leaves on either side
 * (E. Heitz, J. Hanika, E. d’Eon & C. Dachsbacher, “Multiple-Scattering Microfacet BSDFs with the Smith Model”, 2016,
 * with uniform heights). It loses no energy at any roughness.
 */

/** Most facets of a walk; one in ten thousand at the highest roughness goes on longer. */
const MAX_FACETS = 24;

/** The path left on the other side. */
export let transmitted: bool = false;
/** It met one facet only. */
export let singleScatter: bool = false;

/** Direction of the walk. */
let wx: f32 = 0;
let wy: f32 = 0;
let wz: f32 = 0;

/**
 * Samples a direction through or off glass; its weights go to `surface`. False if the walk ends nowhere.
 *
 * @param eta index of refraction ahead over that behind
 * @param thinWall both sides of a thin wall reflect, including their interreflection
 */
export function sampleGlass(eta: f32, thinWall: bool, which: f32, u: f32, v: f32): bool {
  return thinWall ? sampleThinWall(eta, which, u, v) : sampleBody(eta, which, u, v);
}

/** Fresnel reflectance of a facet, red, green and blue, and its mean. */
let fr: f32 = 0;
let fg: f32 = 0;
let fb: f32 = 0;
export let reflectance: f32 = 0;

@inline
function facetReflectance(d: f32, eta: f32, thinWall: bool): void {
  const f = s.fresnel(d, eta);
  fr = fg = fb = f;
  if (s.film > 0 && f < 1) {
    s.filmReflectance(eta >= 1 ? d : sqrt<f32>(max<f32>(0, 1 - (1 - d * d) / (eta * eta))), true);
    fr += s.film * (s.filmR - f);
    fg += s.film * (s.filmG - f);
    fb += s.film * (s.filmB - f);
  }
  if (thinWall) {
    fr = (2 * fr) / (1 + fr);
    fg = (2 * fg) / (1 + fg);
    fb = (2 * fb) / (1 + fb);
  }
  reflectance = min<f32>(1, (fr + fg + fb) / 3);
}

function sampleBody(eta: f32, which: f32, u: f32, v: f32): bool {
  wx = -s.ox;
  wy = -s.oy;
  wz = -s.oz;
  beginRandom();
  // Fraction of facets that lie lower: the walk starts above all.
  let lower: f32 = 1;
  let outside = true;
  let r: f32 = 1;
  let g: f32 = 1;
  let b: f32 = 1;
  for (let k = 0; k < MAX_FACETS; k++) {
    // From the inside, heights are reversed.
    lower = outside ? sampleHeight(lower, wx, wy, wz, random()) : sampleHeight(1 - lower, -wx, -wy, -wz, random());
    if (lower < 0) {
      transmitted = !outside;
      singleScatter = k == 1;
      s.setSample(wx, wy, wz, r, g, b);
      return transmitted ? wz < 0 : wz > 0;
    }
    if (k > 0) {
      which = random();
      u = random();
      v = random();
    }
    if (outside) sampleVisibleNormal(s.alphaX, s.alphaY, -wx, -wy, -wz, u, v);
    else {
      lower = 1 - lower;
      sampleVisibleNormal(s.alphaX, s.alphaY, wx, wy, wz, u, v);
    }
    const side: f32 = outside ? 1 : -1;
    const mx = side * hx;
    const my = side * hy;
    const mz = side * hz;
    const d = min<f32>(1, -(mx * wx + my * wy + mz * wz));
    if (d <= 0) return false;
    const ahead: f32 = outside ? eta : 1 / eta;
    facetReflectance(d, ahead, false);
    if (which < reflectance) {
      const inv: f32 = 1 / reflectance;
      r *= fr * inv;
      g *= fg * inv;
      b *= fb * inv;
      wx += 2 * d * mx;
      wy += 2 * d * my;
      wz += 2 * d * mz;
    } else {
      const inv: f32 = 1 / (1 - reflectance);
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
 * Height, as the fraction of facets below it, at which a ray that starts at height `lower` meets the next facet; −1 if
 * it escapes.
 */
function sampleHeight(lower: f32, x: f32, y: f32, z: f32, u: f32): f32 {
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

/** A thin wall: transmitted light continues straight on, and so does what facets would reflect into the wall. */
function sampleThinWall(eta: f32, which: f32, u: f32, v: f32): bool {
  sampleVisibleNormal(s.alphaX, s.alphaY, s.ox, s.oy, s.oz, u, v);
  const d = hx * s.ox + hy * s.oy + hz * s.oz;
  if (d <= 0) return false;
  facetReflectance(d, eta, true);
  transmitted = which >= reflectance;
  const x: f32 = 2 * d * hx - s.ox;
  const y: f32 = 2 * d * hy - s.oy;
  const z: f32 = 2 * d * hz - s.oz;
  const more: f32 = transmitted ? 1 / (1 - reflectance) : 1 / max<f32>(1e-9, reflectance);
  s.setSample(x, y, z, (transmitted ? 1 - fr : fr) * more, (transmitted ? 1 - fg : fg) * more, (transmitted ? 1 - fb : fb) * more);
  if (z <= 0) transmitted = true;
  singleScatter = !transmitted;
  return true;
}

/**
 * Pdf of reflection off a single facet into a direction above the surface, with its weight in `surface` (B. Walter et
 * al., “Microfacet Models for Refraction through Rough Surfaces”, 2007; height-correlated masking and shadowing by E.
 * Heitz, 2014).
 */
export function evaluateReflection(x: f32, y: f32, z: f32, eta: f32, thinWall: bool): f32 {
  let mx = x + s.ox;
  let my = y + s.oy;
  let mz = z + s.oz;
  const inv: f32 = 1 / sqrt<f32>(mx * mx + my * my + mz * mz);
  mx *= inv;
  my *= inv;
  mz *= inv;
  facetReflectance(min<f32>(1, mx * s.ox + my * s.oy + mz * s.oz), eta, thinWall);
  if (reflectance <= 0) return 0;
  const l = lambda(s.alphaX, s.alphaY, s.ox, s.oy, s.oz);
  // Light that facets reflect into a thin wall leaves it.
  const seen: f32 = 1 + l + (thinWall ? 0 : lambda(s.alphaX, s.alphaY, x, y, z));
  const each: f32 = 1 / reflectance;
  s.setSample(x, y, z, fr * each, fg * each, fb * each);
  return (reflectance * distribution(s.alphaX, s.alphaY, mx, my, mz)) / (4 * s.oz * seen);
}

/** The same for transmission into a direction below. */
export function evaluateTransmission(x: f32, y: f32, z: f32, eta: f32): f32 {
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
  facetReflectance(min<f32>(1, d), eta, false);
  const open: f32 = 1 - reflectance;
  const apart = d - eta * e;
  if (open <= 0 || abs(apart) < 1e-5) return 0;
  const each: f32 = 1 / open;
  s.setSample(x, y, z, (1 - fr) * each, (1 - fg) * each, (1 - fb) * each);
  const facets = distribution(s.alphaX, s.alphaY, mx, my, mz) * (d / s.oz);
  const seen = beta(lambda(s.alphaX, s.alphaY, s.ox, s.oy, s.oz), lambda(s.alphaX, s.alphaY, x, y, z));
  return (open * facets * seen * eta * eta * e) / (apart * apart);
}
