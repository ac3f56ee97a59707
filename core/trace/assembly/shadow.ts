import { facet, hx, hz } from './facets';
import * as hit from './intersect';
import * as lamp from './lamps';
import * as place from './place';
import * as scene from './scene';
import * as s from './surface';

/** What is left of light on its way from a lamp. */
export let leftR: f32 = 1;
export let leftG: f32 = 1;
export let leftB: f32 = 1;

/**
 * Whether light from the lamp that was taken reaches a place; what veils and thin glass leave of it is told beside.
 *
 * @param begins how far from a face the place was moved
 */
export function reaches(x: f32, y: f32, z: f32, begins: f32): bool {
  const to: f32 = lamp.far == Infinity ? lamp.far : lamp.far * 0.9999 - begins;
  const t = hit.hitT;
  const copy = hit.hitCopy;
  const triangle = hit.hitTriangle;
  const there = scene.clear ? seesThrough(x, y, z, to) : sees(x, y, z, to);
  hit.restore(t, copy, triangle);
  return there;
}

function sees(x: f32, y: f32, z: f32, to: f32): bool {
  leftR = leftG = leftB = 1;
  return !hit.intersect(x, y, z, lamp.lx, lamp.ly, lamp.lz, 0, to, true);
}

function seesThrough(x: f32, y: f32, z: f32, to: f32): bool {
  leftR = leftG = leftB = 1;
  let from: f32 = 0;
  for (let i = 0; i < 64; i++) {
    if (!hit.intersect(x, y, z, lamp.lx, lamp.ly, lamp.lz, from, to, false)) return true;
    if (!passes(x, y, z)) return false;
    from = hit.hitT * 1.00001 + 0.00002;
  }
  return false;
}

/** Takes off what a surface that was met keeps of light that goes straight through; false where that is all. */
function passes(x: f32, y: f32, z: f32): bool {
  if (!place.mayPass()) return false;
  place.wornOnTheWay(x, y, z, lamp.lx, lamp.ly, lamp.lz);
  const at = place.wornThere();
  if (load<f32>(at, s.OVERLAY) > 0) return true;
  if (load<f32>(at, s.ADDITIVE) > 0 || load<f32>(at, s.CUT) < load<f32>(at, s.CUT_LEVEL)) return true;
  const alpha = load<f32>(at, s.ALPHA);
  const thin = load<f32>(at, s.THICKNESS) <= 0;
  const glass: f32 = thin ? (1 - load<f32>(at, s.METALNESS)) * load<f32>(at, s.TRANSMISSION) : 0;
  if (alpha >= 1 && glass <= 0) return false;
  let through: f32 = 0;
  if (glass > 0) {
    const cosine = place.cosineOnTheWay(lamp.lx, lamp.ly, lamp.lz);
    through = alpha * glass * wall(at, cosine) * s.underLacquer(at, cosine);
  }
  const open: f32 = 1 - alpha;
  leftR *= open + through * load<f32>(at);
  leftG *= open + through * load<f32>(at, 4);
  leftB *= open + through * load<f32>(at, 8);
  return leftR + leftG + leftB > 0;
}

/** Facets of a rough wall whose mean is taken. */
const FACETS = 8;

/** What a thin wall of glass lets through of light that goes straight on: both sides mirror, and each other's mirror image. */
function wall(at: usize, cosine: f32): f32 {
  const ior = load<f32>(at, s.IOR);
  const rough = load<f32>(at, s.ROUGHNESS);
  if (rough < 0.05) return open(cosine, ior);
  const sine = sqrt<f32>(max<f32>(0, 1 - cosine * cosine));
  const a = rough * rough;
  let sum: f32 = 0;
  for (let i = 0; i < FACETS; i++) {
    const u: f32 = (<f32>i + 0.5) / <f32>FACETS;
    // Turned by the golden section each time, so that no two lie the same way.
    facet(a, a, sine, 0, cosine, u, <f32>i * 0.61803399);
    sum += open(min<f32>(1, max<f32>(0, hx * sine + hz * cosine)), ior);
  }
  return sum / <f32>FACETS;
}

@inline
function open(cosine: f32, ior: f32): f32 {
  const f = s.fresnel(cosine, ior);
  return (1 - f) / (1 + f);
}
