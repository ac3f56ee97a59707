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
    const f = s.fresnel(cosine, load<f32>(at, s.IOR));
    through = alpha * glass * ((1 - f) / (1 + f)) * s.underLacquer(at, cosine);
  }
  const open: f32 = 1 - alpha;
  leftR *= open + through * load<f32>(at);
  leftG *= open + through * load<f32>(at, 4);
  leftB *= open + through * load<f32>(at, 8);
  return leftR + leftG + leftB > 0;
}
