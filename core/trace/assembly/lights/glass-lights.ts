import * as glass from '../surfaces/glass';
import * as lights from './lights';
import * as media from '../surfaces/media';
import * as point from '../paths/shading-point';
import * as scene from '../base/scene';
import * as s from '../surfaces/surface';
import { lightMisWeight } from './mis';

/**
 * Light sampling through one microfacet of rough glass, by reflection or refraction. Multiple scattering between
 * facets, and light that would be absorbed on its way through bodies, are left to BSDF sampling.
 */

/** Densities below this are left to BSDF sampling: they contribute next to nothing. */
const MIN_PDF: f32 = 0.001;
/** GGX alpha below which a lobe is too narrow for a light without size. */
const MIN_ALPHA: f32 = 0.0025;

/** Unoccluded radiance, and the origin of the shadow ray. */
export let r: f32 = 0;
export let g: f32 = 0;
export let b: f32 = 0;
export let x: f32 = 0;
export let y: f32 = 0;
export let z: f32 = 0;

/** Relative index of refraction at the shading point, and whether it is a thin wall. */
let eta: f32 = 1;
let thin: bool = false;
/** Whether light is sampled for reflection, and for transmission. */
let wantsReflection: bool = false;
let wantsTransmission: bool = false;
/** A floor may be visible through the glass: light transmitted from below is left to BSDF sampling. */
let floorBelow: bool = false;

/**
 * Sets up the shading point.
 *
 * @param onFloor a floor lies below, visible through glass only
 */
export function arrive(index: f32, wall: bool, onFloor: bool): void {
  eta = index;
  thin = wall;
  floorBelow = onFloor;
  wantsReflection = wall ? !media.absorption() : point.front && !media.absorption();
  wantsTransmission = !wall && !point.front && media.isLast() && abs(index - 1) > 0.001;
}

/**
 * Samples one light. Returns whether it contributes.
 *
 * @param sky the environment, and not a backdrop, is seen through the glass
 */
export function sampleLight(which: f32, u: f32, v: f32, sky: bool): bool {
  if (!wantsReflection && !wantsTransmission) return false;
  if (!lights.sample(which, point.px, point.py, point.pz, u, v)) return false;
  const isPoint = lights.pdf == 0 || !lights.castsShadow;
  if (isPoint && s.alphaY < MIN_ALPHA) return false;
  const out = lights.lx * point.gx + lights.ly * point.gy + lights.lz * point.gz;
  if (out == 0) return false;
  const crosses = out < 0;
  if (crosses && !sky && lights.lightIndex == scene.lampCount) return false;
  if (crosses && floorBelow && lights.ly < 0) return false;
  const own = singleScatterPdf(
    lights.lx * point.tx + lights.ly * point.ty + lights.lz * point.tz,
    lights.lx * point.bx + lights.ly * point.by + lights.lz * point.bz,
    lights.lx * point.nx + lights.ly * point.ny + lights.lz * point.nz,
    crosses,
  );
  if (own <= 0) return false;
  const weight: f32 = isPoint ? own : own * lightMisWeight(lights.pdf, own);
  r = weight * s.weightR * lights.lightR;
  g = weight * s.weightG * lights.lightG;
  b = weight * s.weightB * lights.lightB;
  if (crosses) {
    // Light enters and leaves a body, and is tinted once in all.
    r *= sqrt<f32>(s.baseR);
    g *= sqrt<f32>(s.baseG);
    b *= sqrt<f32>(s.baseB);
  }
  const begins = point.offset();
  const side: f32 = crosses ? -begins : begins;
  x = point.px + side * point.gx;
  y = point.py + side * point.gy;
  z = point.pz + side * point.gz;
  return true;
}

/** Pdf of the direction in which the glass has scattered the path; −1 if no light was sampled for it. */
export function pdfOfSent(dy: f32): f32 {
  if (!glass.singleScatter) return -1;
  if (glass.transmitted && floorBelow && dy < 0) return -1;
  const own = singleScatterPdf(s.ix, s.iy, s.iz, glass.transmitted);
  return own > 0 ? own : -1;
}

/** Pdf of scattering off a single microfacet, with its weight in `surface`; 0 if that is left to BSDF sampling. */
function singleScatterPdf(lx: f32, ly: f32, lz: f32, crosses: bool): f32 {
  if (crosses ? !wantsTransmission || lz >= 0 : !wantsReflection || lz <= 0) return 0;
  const own = crosses ? glass.evaluateTransmission(lx, ly, lz, eta) : glass.evaluateReflection(lx, ly, lz, eta, thin);
  return own < MIN_PDF ? 0 : own;
}
