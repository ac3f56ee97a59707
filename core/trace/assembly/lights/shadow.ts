import { sampleVisibleNormal, hx, hz } from '../surfaces/microfacet';
import * as hit from '../trees/intersect';
import * as lights from './lights';
import { mayTransmit, there as surfaceOnShadowRay } from '../paths/hit-surface';
import * as point from '../paths/shading-point';
import * as atmosphere from './atmosphere';
import * as scene from '../base/scene';
import * as s from '../surfaces/surface';

/** Transmittance along the shadow ray. */
export let transmittanceR: f32 = 1;
export let transmittanceG: f32 = 1;
export let transmittanceB: f32 = 1;

/** Direction to the light sample. */
let wx: f32 = 0;
let wy: f32 = 0;
let wz: f32 = 1;

/**
 * Whether light from the sampled light arrives; the transmittance of translucent surfaces, thin glass and air stands
 * beside. The ray goes from the point, offset from its face, to the sampled position itself, and the emissive triangle
 * is excluded.
 */
export function isVisible(x: f32, y: f32, z: f32): bool {
  wx = lights.lx;
  wy = lights.ly;
  wz = lights.lz;
  let far = lights.far;
  if (far < Infinity) {
    wx = lights.atX - x;
    wy = lights.atY - y;
    wz = lights.atZ - z;
    far = sqrt<f32>(wx * wx + wy * wy + wz * wz);
    if (!(far > 0)) return false;
    const inv: f32 = 1 / far;
    wx *= inv;
    wy *= inv;
    wz *= inv;
  }
  transmittanceR = transmittanceG = transmittanceB = 1;
  const t = hit.hitT;
  const copy = hit.hitCopy;
  const triangle = hit.hitTriangle;
  hit.exclude(lights.ofCopy, lights.ofTriangle);
  const to: f32 = far * SHORTENED;
  const there = scene.hasTransparency ? seesThrough(x, y, z, to) : sees(x, y, z, to);
  hit.exclude(-1, -1);
  hit.restore(t, copy, triangle);
  if (!there) return false;
  const left = atmosphere.airTransmittance(x, y, z, wx, wy, wz, far, false);
  transmittanceR *= left;
  transmittanceG *= left;
  transmittanceB *= left;
  return true;
}

/** The ray is shortened to this: neighbours of the emissive face touch its end. */
const SHORTENED: f32 = 0.99999;

function sees(x: f32, y: f32, z: f32, to: f32): bool {
  return !hit.intersect(x, y, z, wx, wy, wz, 0, to, true);
}

function seesThrough(x: f32, y: f32, z: f32, to: f32): bool {
  let from: f32 = 0;
  for (let i = 0; i < 64; i++) {
    if (!hit.intersect(x, y, z, wx, wy, wz, from, to, false)) return true;
    if (!attenuate(x, y, z)) return false;
    from = point.behind();
  }
  return false;
}

/** Attenuates light that passes straight through a hit; false if nothing is left. */
function attenuate(x: f32, y: f32, z: f32): bool {
  if (!mayTransmit()) return false;
  point.setUpShadowHit(x, y, z, wx, wy, wz);
  const at = surfaceOnShadowRay;
  if (load<f32>(at, s.OVERLAY) > 0) return true;
  if (load<f32>(at, s.ADDITIVE) > 0 || load<f32>(at, s.CUT) < load<f32>(at, s.CUT_LEVEL)) return true;
  const alpha = load<f32>(at, s.ALPHA);
  const thin = load<f32>(at, s.THICKNESS) <= 0;
  const glass: f32 = thin ? (1 - load<f32>(at, s.METALNESS)) * load<f32>(at, s.TRANSMISSION) : 0;
  if (alpha >= 1 && glass <= 0) return false;
  let through: f32 = 0;
  if (glass > 0) {
    const cosine = point.shadowHitCosine(wx, wy, wz);
    through = alpha * glass * thinWallTransmittance(at, cosine) * s.coatTransmittance(at, cosine);
  }
  const open: f32 = 1 - alpha;
  transmittanceR *= open + through * load<f32>(at);
  transmittanceG *= open + through * load<f32>(at, 4);
  transmittanceB *= open + through * load<f32>(at, 8);
  return transmittanceR + transmittanceG + transmittanceB > 0;
}

/** Facets averaged for a rough thin wall. */
const FACETS = 8;

/**
 * Transmittance of a thin wall for light that goes straight on: both sides reflect, including their interreflection.
 */
function thinWallTransmittance(at: usize, cosine: f32): f32 {
  const ior = load<f32>(at, s.IOR);
  const rough = load<f32>(at, s.ROUGHNESS);
  if (rough < 0.05) return open(cosine, ior);
  const sine = sqrt<f32>(max<f32>(0, 1 - cosine * cosine));
  const a = rough * rough;
  let sum: f32 = 0;
  for (let i = 0; i < FACETS; i++) {
    const u: f32 = (<f32>i + 0.5) / <f32>FACETS;
    // Rotated by the golden ratio each time, so that no two facets face the same way.
    sampleVisibleNormal(a, a, sine, 0, cosine, u, <f32>i * 0.61803399);
    sum += open(min<f32>(1, max<f32>(0, hx * sine + hz * cosine)), ior);
  }
  return sum / <f32>FACETS;
}

@inline
function open(cosine: f32, ior: f32): f32 {
  const f = s.fresnel(cosine, ior);
  return (1 - f) / (1 + f);
}
