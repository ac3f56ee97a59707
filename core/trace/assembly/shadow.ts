import { facet, hx, hz } from './facets';
import * as hit from './intersect';
import * as lamp from './lamps';
import * as place from './place';
import * as room from './room';
import * as scene from './scene';
import * as s from './surface';

/** What is left of light on its way from a lamp. */
export let leftR: f32 = 1;
export let leftG: f32 = 1;
export let leftB: f32 = 1;

/** The way to the light that was taken, from where it is looked at. */
let wx: f32 = 0;
let wy: f32 = 0;
let wz: f32 = 1;

/**
 * Whether light from the lamp that was taken reaches a place; what veils, thin glass and air leave of it is told beside.
 * The ray goes from the place, a little off its face, to the very place of the light, and the triangle that gives the
 * light does not stand in its own way.
 */
export function reaches(x: f32, y: f32, z: f32): bool {
  wx = lamp.lx;
  wy = lamp.ly;
  wz = lamp.lz;
  let far = lamp.far;
  if (far < Infinity) {
    wx = lamp.atX - x;
    wy = lamp.atY - y;
    wz = lamp.atZ - z;
    far = sqrt<f32>(wx * wx + wy * wy + wz * wz);
    if (!(far > 0)) return false;
    const inv: f32 = 1 / far;
    wx *= inv;
    wy *= inv;
    wz *= inv;
  }
  leftR = leftG = leftB = 1;
  const t = hit.hitT;
  const copy = hit.hitCopy;
  const triangle = hit.hitTriangle;
  hit.leaveOut(lamp.ofCopy, lamp.ofTriangle);
  const to: f32 = far * NEARLY;
  const there = scene.clear ? seesThrough(x, y, z, to) : sees(x, y, z, to);
  hit.leaveOut(-1, -1);
  hit.restore(t, copy, triangle);
  if (!there) return false;
  const left = room.throughAir(x, y, z, wx, wy, wz, far, false);
  leftR *= left;
  leftG *= left;
  leftB *= left;
  return true;
}

/** Of the way to a light what is looked at: neighbours of the face that gives it touch its end. */
const NEARLY: f32 = 0.99999;

function sees(x: f32, y: f32, z: f32, to: f32): bool {
  return !hit.intersect(x, y, z, wx, wy, wz, 0, to, true);
}

function seesThrough(x: f32, y: f32, z: f32, to: f32): bool {
  let from: f32 = 0;
  for (let i = 0; i < 64; i++) {
    if (!hit.intersect(x, y, z, wx, wy, wz, from, to, false)) return true;
    if (!passes(x, y, z)) return false;
    from = place.behind();
  }
  return false;
}

/** Takes off what a surface that was met keeps of light that goes straight through; false where that is all. */
function passes(x: f32, y: f32, z: f32): bool {
  if (!place.mayPass()) return false;
  place.wornOnTheWay(x, y, z, wx, wy, wz);
  const at = place.wornThere();
  if (load<f32>(at, s.OVERLAY) > 0) return true;
  if (load<f32>(at, s.ADDITIVE) > 0 || load<f32>(at, s.CUT) < load<f32>(at, s.CUT_LEVEL)) return true;
  const alpha = load<f32>(at, s.ALPHA);
  const thin = load<f32>(at, s.THICKNESS) <= 0;
  const glass: f32 = thin ? (1 - load<f32>(at, s.METALNESS)) * load<f32>(at, s.TRANSMISSION) : 0;
  if (alpha >= 1 && glass <= 0) return false;
  let through: f32 = 0;
  if (glass > 0) {
    const cosine = place.cosineOnTheWay(wx, wy, wz);
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
