import { allocate } from '../base/per-thread';

/**
 * Thin-film interference: Airy's sum over all reflections inside the film (M. Born & E. Wolf, Principles of Optics,
 * section 7.6), for all wavelengths at once. As a series of cosines of the phase the reflectance is
 *
 * 1 − a · (1 + 2 · Σ (−q)ᵏ · cos kφ), a = (1 − r₁²) · (1 − r₂²) / (1 − q²), q = r₁ · r₂,
 *
 * with the amplitudes r₁ and r₂ of both interfaces, so that only the cosines depend on wavelength. Their integrals for
 * red, green and blue are functions of the optical path difference and stand in a table (as in L. Belcour & P. Barla,
 * “A practical extension to microfacet theory for the modeling of varying iridescence”, 2017, who fit Gaussians
 * instead).
 */

/** Entries of the table, and nanometres between them; beyond the last, colours have faded to white. */
const ENTRIES = 1024;
const STEP: f32 = 8;
/** Most terms, for grazing angles where the series converges slowly. */
const MOST = 128;
const LEAST: f32 = 0.00002;

/**
 * Mean cosine for red, green and blue, and a spare number, for path differences of −1 step, 0, 1 step and so on;
 * core/trace/memory/memory.ts writes it.
 */
const table = allocate((1024 + 3) * 16);

export function filmTable(): usize {
  return table;
}

export let filmRed: f32 = 0;
export let filmGreen: f32 = 0;
export let filmBlue: f32 = 0;

/** Mean cosine for a path difference in steps, interpolated between four entries (E. Catmull & R. Rom, 1974). */
@inline
function meanCosine(steps: f32): v128 {
  const whole = floor<f32>(steps);
  const at = table + (<usize>whole << 4);
  const t = f32x4.splat(steps - whole);
  const half = f32x4.splat(0.5);
  const a = v128.load(at);
  const b = v128.load(at, 16);
  const c = v128.load(at, 32);
  const d = v128.load(at, 48);
  const slope = f32x4.mul(f32x4.sub(c, a), half);
  const next = f32x4.mul(f32x4.sub(d, b), half);
  const rise = f32x4.sub(c, b);
  const cubic = f32x4.sub(f32x4.add(slope, next), f32x4.add(rise, rise));
  const square = f32x4.sub(f32x4.sub(rise, slope), cubic);
  return f32x4.add(b, f32x4.mul(t, f32x4.add(slope, f32x4.mul(t, f32x4.add(square, f32x4.mul(t, cubic))))));
}

@inline
function without(x: v128): v128 {
  return f32x4.sub(f32x4.splat(1), f32x4.mul(x, x));
}

/**
 * Reflectance into filmRed, filmGreen and filmBlue.
 *
 * @param cosine of the angle of incidence, 0…1
 * @param n index of refraction of the film, and `thickness` in nanometres
 * @param r reflectance of the bare body at normal incidence, red; then green and blue
 */
export function thinFilm(cosine: f32, n: f32, thickness: f32, r: f32, g: f32, b: f32): void {
  const one = f32x4.splat(1);
  const zero = f32x4.splat(0);
  const root = f32x4.sqrt(f32x4.min(f32x4.max(f32x4(r, g, b, 0), zero), f32x4.splat(0.999999)));
  const body = f32x4.div(f32x4.add(one, root), f32x4.sub(one, root));
  const sine: f32 = 1 - cosine * cosine;
  const c2 = sqrt<f32>(max<f32>(0, 1 - sine / (n * n)));
  const c3 = f32x4.sqrt(f32x4.max(zero, f32x4.sub(one, f32x4.div(f32x4.splat(sine), f32x4.mul(body, body)))));
  // Fresnel amplitudes at both interfaces, perpendicular (s) and parallel (p) polarised.
  const upS = f32x4.splat((cosine - n * c2) / (cosine + n * c2));
  const upP = f32x4.splat((n * cosine - c2) / (n * cosine + c2));
  const nc = f32x4.splat(n * c2);
  const bc = f32x4.mul(body, c3);
  const lowS = f32x4.div(f32x4.sub(nc, bc), f32x4.add(nc, bc));
  const nc3 = f32x4.mul(f32x4.splat(n), c3);
  const bc2 = f32x4.mul(body, f32x4.splat(c2));
  const lowP = f32x4.div(f32x4.sub(bc2, nc3), f32x4.add(bc2, nc3));
  const qS = f32x4.neg(f32x4.mul(upS, lowS));
  const qP = f32x4.neg(f32x4.mul(upP, lowP));
  const tiny = f32x4.splat(1e-7);
  let s = f32x4.div(f32x4.mul(without(upS), without(lowS)), f32x4.max(without(qS), tiny));
  let p = f32x4.div(f32x4.mul(without(upP), without(lowP)), f32x4.max(without(qP), tiny));
  let sum = f32x4.mul(f32x4.add(s, p), f32x4.splat(0.5));
  const longer: f32 = (2 * n * thickness * c2) / STEP;
  let steps = longer;
  for (let k = 0; k < MOST && steps < <f32>ENTRIES; k++) {
    s = f32x4.mul(s, qS);
    p = f32x4.mul(p, qP);
    const both = f32x4.add(s, p);
    if (!v128.any_true(f32x4.gt(f32x4.add(f32x4.abs(s), f32x4.abs(p)), f32x4.splat(LEAST)))) break;
    sum = f32x4.add(sum, f32x4.mul(both, meanCosine(steps)));
    steps += longer;
  }
  sum = f32x4.min(one, f32x4.max(zero, f32x4.sub(one, sum)));
  filmRed = f32x4.extract_lane(sum, 0);
  filmGreen = f32x4.extract_lane(sum, 1);
  filmBlue = f32x4.extract_lane(sum, 2);
}
