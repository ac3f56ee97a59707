import { cosTurns, PI, sinTurns } from './maths';

/**
 * How a surface sends light on, in a frame whose z is its normal: Lambert under a mirror of GGX facets (B. Walter
 * et al., 2007) with Smith's heights together (E. Heitz, 2014), what facets pass on to each other made up for (E.
 * Turquin, 2019), a coat over both, and beside them rough glass. What the mirror takes, what is below it lacks, so
 * that no light is made and none lost.
 */

/** A surface, 32 numbers. */
export const SURFACE: usize = 128;
export const ROUGHNESS: usize = 12;
export const METALNESS: usize = 16;
const SPECULAR: usize = 20;
export const IOR: usize = 24;
export const TRANSMISSION: usize = 28;
export const THICKNESS: usize = 32;
/** Share that is absorbed per metre, red, green and blue. */
export const ABSORBED: usize = 36;
/** Light of its own, red, green and blue; of the base colour, by that much, where it is tinted. */
export const EMISSION: usize = 48;
export const TINTED: usize = 60;
export const ALPHA: usize = 64;
export const ADDITIVE: usize = 68;
const COAT: usize = 72;
const COAT_ROUGHNESS: usize = 76;

/** The surface that is looked at: its numbers, and what a copy has of its own. */
export let baseR: f32 = 1;
export let baseG: f32 = 1;
export let baseB: f32 = 1;
let alpha: f32 = 1;
let metal: f32 = 0;
let specular: f32 = 1;
let straight: f32 = 0.04;
export let ior: f32 = 1.5;
/** Share that is glass. */
export let glass: f32 = 0;
let coat: f32 = 0;
let coatAlpha: f32 = 0.01;

/** Mirror share seen straight on. */
let f0r: f32 = 0;
let f0g: f32 = 0;
let f0b: f32 = 0;
let f90: f32 = 1;

/** Weights of what may be done at random. */
let byCoat: f32 = 0;
let byMirror: f32 = 0;
let byBelow: f32 = 0;
/** What is below the mirror gets, and what facets pass on. */
let below: f32 = 1;
let upR: f32 = 1;
let upG: f32 = 1;
let upB: f32 = 1;
let underCoat: f32 = 1;
/** Direction to where light goes. */
let ox: f32 = 0;
let oy: f32 = 0;
let oz: f32 = 1;

/** What a sample is: where light comes from, and what it counts. */
export let ix: f32 = 0;
export let iy: f32 = 0;
export let iz: f32 = 0;
export let weightR: f32 = 0;
export let weightG: f32 = 0;
export let weightB: f32 = 0;
export let pdf: f32 = 0;

/** Sizes of the table of what a mirror of facets gives back: by roughness, then by the cosine of the angle. */
const TABLE = 32;
const table = memory.data(32 * 32 * 8);

/** Alpha of GGX: facets of a mirror are never quite all alike. */
@inline
function alphaOf(roughness: f32): f32 {
  return max<f32>(roughness * roughness, 0.0004);
}

/** Works out what a mirror of facets gives back of light from all round, with a mirror share of 1 and by (1 − cos)⁵. */
export function prepareSurfaces(): void {
  const steps = 32;
  for (let r = 0; r < TABLE; r++)
    for (let m = 0; m < TABLE; m++) {
      const a = alphaOf(<f32>r / <f32>(TABLE - 1));
      // By the square root of the cosine: near the edge it changes most.
      const root = <f32>m / <f32>(TABLE - 1);
      const mu = max<f32>(0.0002, root * root);
      ox = sqrt<f32>(1 - mu * mu);
      oy = 0;
      oz = mu;
      let all: f32 = 0;
      let grazing: f32 = 0;
      for (let i = 0; i < steps; i++)
        for (let j = 0; j < steps; j++) {
          facet(a, (<f32>i + 0.5) / <f32>steps, (<f32>j + 0.5) / <f32>steps);
          const d = ox * hx + oz * hz;
          const z: f32 = 2 * d * hz - oz;
          if (z <= 0) continue;
          const share: f32 = heightShare(a, z, mu);
          const w = fifth(1 - d);
          all += share * (1 - w);
          grazing += share * w;
        }
      const at = table + ((r * TABLE + m) << 3);
      store<f32>(at, all / <f32>(steps * steps));
      store<f32>(at, grazing / <f32>(steps * steps), 4);
    }
}

let tableA: f32 = 0;
let tableB: f32 = 0;

function look(roughness: f32, mu: f32): void {
  const x = min<f32>(max<f32>(roughness, 0), 1) * <f32>(TABLE - 1);
  const y = sqrt<f32>(min<f32>(max<f32>(mu, 0), 1)) * <f32>(TABLE - 1);
  const i = min(TABLE - 2, <i32>x);
  const j = min(TABLE - 2, <i32>y);
  const u = x - <f32>i;
  const v = y - <f32>j;
  const at = table + ((i * TABLE + j) << 3);
  const down = at + (TABLE << 3);
  const w00: f32 = (1 - u) * (1 - v);
  const w01: f32 = (1 - u) * v;
  const w10 = u * (1 - v);
  const w11 = u * v;
  tableA = w00 * load<f32>(at) + w01 * load<f32>(at, 8) + w10 * load<f32>(down) + w11 * load<f32>(down, 8);
  tableB = w00 * load<f32>(at, 4) + w01 * load<f32>(at, 12) + w10 * load<f32>(down, 4) + w11 * load<f32>(down, 12);
}

@inline
function fifth(x: f32): f32 {
  const s = x * x;
  return s * s * x;
}

@inline
function brightness(r: f32, g: f32, b: f32): f32 {
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Takes a surface over; a copy's own values have been put in place of its own before. */
export function takeSurface(at: usize, r: f32, g: f32, b: f32, roughness: f32, metalness: f32): void {
  baseR = r;
  baseG = g;
  baseB = b;
  rough = roughness;
  alpha = alphaOf(roughness);
  metal = metalness;
  specular = load<f32>(at, SPECULAR);
  ior = load<f32>(at, IOR);
  const ratio = (ior - 1) / (ior + 1);
  straight = ratio * ratio * specular;
  glass = (1 - metal) * load<f32>(at, TRANSMISSION);
  coat = load<f32>(at, COAT);
  coatRough = load<f32>(at, COAT_ROUGHNESS);
  coatAlpha = alphaOf(coatRough);
  f0r = straight + (baseR - straight) * metal;
  f0g = straight + (baseG - straight) * metal;
  f0b = straight + (baseB - straight) * metal;
  f90 = specular + (1 - specular) * metal;
}

let rough: f32 = 1;
let coatRough: f32 = 0;

/** Says where light goes, a unit vector above the surface. */
export function takeView(x: f32, y: f32, z: f32): void {
  ox = x;
  oy = y;
  oz = max<f32>(z, 0.0001);
  underCoat = 1;
  if (coat > 0) {
    look(coatRough, oz);
    underCoat = 1 - coat * (0.04 * tableA + tableB);
  }
  look(rough, oz);
  const a = tableA;
  const b = tableB;
  const whole = max<f32>(a + b, 0.05);
  // What facets pass on to each other before it leaves.
  const more: f32 = 1 / whole - 1;
  const clear = (straight * a + specular * b) * (1 + straight * more);
  const mirrorR = metal * (baseR * a + b) * (1 + baseR * more) + (1 - metal) * clear;
  const mirrorG = metal * (baseG * a + b) * (1 + baseG * more) + (1 - metal) * clear;
  const mirrorB = metal * (baseB * a + b) * (1 + baseB * more) + (1 - metal) * clear;
  upR = mirrorR / max<f32>(1e-9, f0r * a + f90 * b);
  upG = mirrorG / max<f32>(1e-9, f0g * a + f90 * b);
  upB = mirrorB / max<f32>(1e-9, f0b * a + f90 * b);
  below = (1 - metal) * max<f32>(0, 1 - clear);
  const m = brightness(mirrorR, mirrorG, mirrorB) * underCoat;
  const d = below * brightness(baseR, baseG, baseB) * underCoat;
  byCoat = 1 - underCoat;
  const sum = byCoat + m + d;
  byCoat /= sum;
  byMirror = m / sum;
  byBelow = d / sum;
}

/** A facet as it is seen (E. Heitz, “Sampling the GGX Distribution of Visible Normals”, 2018). */
let hx: f32 = 0;
let hy: f32 = 0;
let hz: f32 = 1;

function facet(a: f32, u: f32, v: f32): void {
  let x: f32 = a * ox;
  let y: f32 = a * oy;
  let z: f32 = oz;
  const inv: f32 = 1 / sqrt<f32>(x * x + y * y + z * z);
  x *= inv;
  y *= inv;
  z *= inv;
  const flat = x * x + y * y;
  const s: f32 = flat > 0 ? 1 / sqrt<f32>(flat) : 0;
  const t1x: f32 = flat > 0 ? -y * s : 1;
  const t1y: f32 = flat > 0 ? x * s : 0;
  const t2x = -z * t1y;
  const t2y = z * t1x;
  const t2z = x * t1y - y * t1x;
  const radius = sqrt<f32>(u);
  const p1: f32 = radius * cosTurns(v);
  const half: f32 = 0.5 * (1 + z);
  const p2: f32 = (1 - half) * sqrt<f32>(max<f32>(0, 1 - p1 * p1)) + half * radius * sinTurns(v);
  const p3: f32 = sqrt<f32>(max<f32>(0, 1 - p1 * p1 - p2 * p2));
  const nx: f32 = a * (p1 * t1x + p2 * t2x + p3 * x);
  const ny: f32 = a * (p1 * t1y + p2 * t2y + p3 * y);
  const nz: f32 = max<f32>(1e-6, p2 * t2z + p3 * z);
  const length: f32 = 1 / sqrt<f32>(nx * nx + ny * ny + nz * nz);
  hx = nx * length;
  hy = ny * length;
  hz = nz * length;
}

@inline
function lambda(a: f32, z: f32): f32 {
  const c = z * z;
  return 0.5 * (sqrt<f32>(1 + (a * a * max<f32>(0, 1 - c)) / max<f32>(c, 1e-9)) - 1);
}

/** Share of the facets that are seen which light from a height reaches, too. */
@inline
function heightShare(a: f32, i: f32, o: f32): f32 {
  const l = lambda(a, o);
  return (1 + l) / (1 + l + lambda(a, i));
}

@inline
function density(a: f32, z: f32): f32 {
  const s = a * a;
  const d = z * z * (s - 1) + 1;
  return s / (PI * d * d);
}

/** What light from a direction above the surface counts, without glass, times the cosine; and how likely `sample` takes it. */
export function evaluate(x: f32, y: f32, z: f32): void {
  weightR = weightG = weightB = pdf = 0;
  if (z <= 0) return;
  let mx = x + ox;
  let my = y + oy;
  let mz = z + oz;
  const inv: f32 = 1 / sqrt<f32>(mx * mx + my * my + mz * mz);
  mx *= inv;
  my *= inv;
  mz *= inv;
  const d = min<f32>(1, max<f32>(0, mx * ox + my * oy + mz * oz));
  const w = fifth(1 - d);
  const l = lambda(alpha, oz);
  const spread = density(alpha, mz);
  const mirror = spread / (4 * oz * (1 + l + lambda(alpha, z)));
  const matt = (below * underCoat * z) / PI;
  weightR = matt * baseR + underCoat * mirror * (f0r + (f90 - f0r) * w) * upR;
  weightG = matt * baseG + underCoat * mirror * (f0g + (f90 - f0g) * w) * upG;
  weightB = matt * baseB + underCoat * mirror * (f0b + (f90 - f0b) * w) * upB;
  pdf = (byBelow * z) / PI + (byMirror * spread) / (4 * oz * (1 + l));
  if (coat > 0) {
    const lc = lambda(coatAlpha, oz);
    const dc = density(coatAlpha, mz);
    const c = (coat * dc * (0.04 + 0.96 * w)) / (4 * oz * (1 + lc + lambda(coatAlpha, z)));
    weightR += c;
    weightG += c;
    weightB += c;
    pdf += (byCoat * dc) / (4 * oz * (1 + lc));
  }
}

/** Takes a direction at random, without glass: it and `pdf`, and what it counts over how likely it is. False where it leads nowhere. */
export function sample(which: f32, u: f32, v: f32): bool {
  let x: f32;
  let y: f32;
  let z: f32;
  if (which < byBelow) {
    const radius = sqrt<f32>(u);
    x = radius * cosTurns(v);
    y = radius * sinTurns(v);
    z = sqrt<f32>(max<f32>(0, 1 - u));
  } else {
    facet(which < byBelow + byMirror ? alpha : coatAlpha, u, v);
    const d: f32 = 2 * (hx * ox + hy * oy + hz * oz);
    x = d * hx - ox;
    y = d * hy - oy;
    z = d * hz - oz;
  }
  evaluate(x, y, z);
  if (!(pdf > 0)) return false;
  const inv: f32 = 1 / pdf;
  weightR *= inv;
  weightG *= inv;
  weightB *= inv;
  ix = x;
  iy = y;
  iz = z;
  return true;
}

/** Fresnel's mirror share of glass (A. J. Fresnel, 1823): 1 where light cannot leave. `eta` is the index ahead over that behind. */
export function fresnel(cosine: f32, eta: f32): f32 {
  const sine: f32 = (1 - cosine * cosine) / (eta * eta);
  if (sine >= 1) return 1;
  const t: f32 = sqrt<f32>(1 - sine);
  const s = (cosine - eta * t) / (cosine + eta * t);
  const p = (eta * cosine - t) / (eta * cosine + t);
  return 0.5 * (s * s + p * p);
}

/**
 * Takes a direction through or off rough glass at random. False where it leads nowhere; `through` says which.
 *
 * @param eta index ahead over that behind
 */
export let through: bool = false;

export function sampleGlass(eta: f32, which: f32, u: f32, v: f32): bool {
  facet(alpha, u, v);
  const d = hx * ox + hy * oy + hz * oz;
  if (d <= 0) return false;
  const f = fresnel(d, eta);
  through = which >= f;
  if (through) {
    const k: f32 = 1 / eta;
    const t: f32 = sqrt<f32>(max<f32>(0, 1 - k * k * (1 - d * d)));
    const s: f32 = k * d - t;
    ix = s * hx - k * ox;
    iy = s * hy - k * oy;
    iz = s * hz - k * oz;
    if (iz >= 0) return false;
  } else {
    ix = 2 * d * hx - ox;
    iy = 2 * d * hy - oy;
    iz = 2 * d * hz - oz;
    if (iz <= 0) return false;
  }
  weightR = weightG = weightB = heightShare(alpha, abs(iz), oz);
  return true;
}
