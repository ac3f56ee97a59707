import { cosTurns } from './maths';
import { ownRoom } from './own';

/**
 * A thin film on a body: Airy's sum over all reflections in it (M. Born & E. Wolf, Principles of Optics, section
 * 7.6), for wavelengths across what is seen, summed up to linear red, green and blue.
 */

/** Wavelengths that are looked at; the first in nanometres, and the step from one to the next. */
const WAVES = 40;
const FIRST: f32 = 385;
const STEP: f32 = 8;

/** What light of each wavelength counts in red, green and blue, and a free number; core/trace/memory.ts writes it. */
const weights = ownRoom(40 * 16);

export function filmWeights(): usize {
  return weights;
}

export let filmRed: f32 = 0;
export let filmGreen: f32 = 0;
export let filmBlue: f32 = 0;

/**
 * @param cosine of the angle of incidence, 0…1
 * @param n index of the film, and `thickness` of it in nanometres
 * @param r mirror share of the bare body seen straight on, red; then green and blue
 */
export function thinFilm(cosine: f32, n: f32, thickness: f32, r: f32, g: f32, b: f32): void {
  const one = f32x4.splat(1);
  const zero = f32x4.splat(0);
  const root = f32x4.sqrt(f32x4.min(f32x4.max(f32x4(r, g, b, 0), zero), f32x4.splat(0.999999)));
  const body = f32x4.div(f32x4.add(one, root), f32x4.sub(one, root));
  const sine: f32 = 1 - cosine * cosine;
  const c2 = sqrt<f32>(max<f32>(0, 1 - sine / (n * n)));
  const c3 = f32x4.sqrt(f32x4.max(zero, f32x4.sub(one, f32x4.div(f32x4.splat(sine), f32x4.mul(body, body)))));
  // Fresnel's amplitudes at both faces, square to the plane of incidence and in it.
  const upS = (cosine - n * c2) / (cosine + n * c2);
  const upP = (n * cosine - c2) / (n * cosine + c2);
  const nc = f32x4.splat(n * c2);
  const bc = f32x4.mul(body, c3);
  const lowS = f32x4.div(f32x4.sub(nc, bc), f32x4.add(nc, bc));
  const nc3 = f32x4.mul(f32x4.splat(n), c3);
  const bc2 = f32x4.mul(body, f32x4.splat(c2));
  const lowP = f32x4.div(f32x4.sub(bc2, nc3), f32x4.add(bc2, nc3));
  const s2 = f32x4.splat(upS * upS);
  const p2 = f32x4.splat(upP * upP);
  const sumS = f32x4.add(s2, f32x4.mul(lowS, lowS));
  const sumP = f32x4.add(p2, f32x4.mul(lowP, lowP));
  const proS = f32x4.add(one, f32x4.mul(s2, f32x4.mul(lowS, lowS)));
  const proP = f32x4.add(one, f32x4.mul(p2, f32x4.mul(lowP, lowP)));
  const bothS = f32x4.mul(f32x4.splat(<f32>2 * upS), lowS);
  const bothP = f32x4.mul(f32x4.splat(<f32>2 * upP), lowP);
  const turns: f32 = 2 * n * thickness * c2;
  let sum = zero;
  for (let i = 0; i < WAVES; i++) {
    const cosPhase = f32x4.splat(cosTurns(turns / (FIRST + STEP * <f32>i)));
    const s = f32x4.mul(bothS, cosPhase);
    const p = f32x4.mul(bothP, cosPhase);
    const share = f32x4.add(
      f32x4.div(f32x4.add(sumS, s), f32x4.add(proS, s)),
      f32x4.div(f32x4.add(sumP, p), f32x4.add(proP, p)),
    );
    sum = f32x4.add(sum, f32x4.mul(share, v128.load(weights + (<usize>i << 4))));
  }
  sum = f32x4.min(one, f32x4.max(zero, f32x4.mul(sum, f32x4.splat(0.5))));
  filmRed = f32x4.extract_lane(sum, 0);
  filmGreen = f32x4.extract_lane(sum, 1);
  filmBlue = f32x4.extract_lane(sum, 2);
}
