import { distribution, sampleVisibleNormal, hx, hy, hz, lambda } from './microfacet';
import { filmBlue, filmGreen, filmRed, thinFilm } from './film';
import { cosTurns, PI, sinTurns } from '../base/maths';
import { allocate } from '../base/per-thread';
import { prepareSheen, sheenAlbedo, evaluateSheen } from './sheen';

/**
 * The layered BSDF, in a frame whose z is the shading normal and whose x follows the grooves: Lambertian below GGX (B.
 * Walter et al., 2007) with height-correlated masking and shadowing (E. Heitz, 2014) and multiple scattering
 * compensation (E. Turquin, 2019), thin film on the specular lobe, clearcoat over all, sheen on top; glass (glass.ts)
 * may replace a share of the specular and diffuse lobes. What an upper layer takes, the lower ones lose: energy is
 * conserved.
 */

/** A surface, 48 numbers; core/trace/scene/surfaces.ts packs them. */
export const SURFACE: usize = 192;
export const ROUGHNESS: usize = 12;
export const METALNESS: usize = 16;
const SPECULAR: usize = 20;
export const IOR: usize = 24;
export const TRANSMISSION: usize = 28;
export const THICKNESS: usize = 32;
/** Absorption coefficients per metre, red, green and blue. */
export const ABSORBED: usize = 36;
/** Emission colour; whether the base colour replaces it. */
const EMISSION: usize = 48;
const TINTED: usize = 60;
export const ALPHA: usize = 64;
export const ADDITIVE: usize = 68;
const COAT: usize = 72;
const COAT_ROUGHNESS: usize = 76;
/** Sheen colour, three numbers. */
const SHEEN: usize = 80;
const SHEEN_ROUGHNESS: usize = 92;
/** Strength of the thin film, its index of refraction, and thickness in nanometres. */
const FILM: usize = 96;
const FILM_IOR: usize = 100;
const FILM_THICKNESS: usize = 104;
const ANISOTROPY: usize = 108;
/** In turns. */
const GROOVES_TURN: usize = 112;
/** Axis x, y, z as 0 … 2, plus 3 if grooves run along it and not around it; negative for none. */
export const GROOVES: usize = 116;
export const DISPERSION: usize = 120;
/** 1 + index of its patterns; an integer, 0 for none. */
export const PATTERN: usize = 124;
/** Factors on emission and on sheen. */
const EMISSION_STRENGTH: usize = 128;
const SHEEN_STRENGTH: usize = 132;
/** Above 0 if a pattern bumps it. */
export const BUMPED: usize = 136;
export const CUT: usize = 140;
export const CUT_LEVEL: usize = 144;
/** 1 for a holdout: invisible, hiding what is behind. */
export const HOLDOUT: usize = 148;
/** Bump slopes along x and y of the frame, as patterns computed them. */
export const SLOPE_X: usize = 152;
export const SLOPE_Y: usize = 156;
/** Above 0 if light sampling finds its emission, and not BSDF sampling alone. */
export const IN_LIGHT_LIST: usize = 160;
/** Above 0 if light may pass straight through. */
export const CLEAR: usize = 164;
/** Above 0 for lines and dots of the picture: they emit light and cast no shadow. */
export const OVERLAY: usize = 168;

/** The loaded surface, with overrides of its instance. */
export let baseR: f32 = 1;
export let baseG: f32 = 1;
export let baseB: f32 = 1;
/** GGX alpha along x and y: they differ if it is brushed. */
export let alphaX: f32 = 1;
export let alphaY: f32 = 1;
let metal: f32 = 0;
let specular: f32 = 1;
let straight: f32 = 0.04;
export let ior: f32 = 1.5;
/** Share of glass, below clearcoat and sheen. */
let glass: f32 = 0;
/** Probability of choosing glass: what clearcoat and sheen leave of it. */
export let glassProbability: f32 = 0;
/** Weights of the other paths: of clearcoat and sheen, and of what lies below them beside the glass. */
let over: f32 = 1;
let beside: f32 = 1;
let coat: f32 = 0;
let coatAlpha: f32 = 0.01;
export let dispersion: f32 = 0;
let sheenR: f32 = 0;
let sheenG: f32 = 0;
let sheenB: f32 = 0;
let sheenMost: f32 = 0;
let sheenRough: f32 = 0;
/** What sheen leaves to the layers below. */
let underSheen: f32 = 1;
export let film: f32 = 0;
let filmIor: f32 = 1.3;
let filmThickness: f32 = 400;
/** Emission. */
export let emissionR: f32 = 0;
export let emissionG: f32 = 0;
export let emissionB: f32 = 0;

/** Reflectance at normal incidence. */
let f0r: f32 = 0;
let f0g: f32 = 0;
let f0b: f32 = 0;
let f90: f32 = 1;

/** Probabilities of the lobes. */
let coatProbability: f32 = 0;
export let specularProbability: f32 = 0;
let diffuseProbability: f32 = 0;
/** What reaches the diffuse layer, and multiple scattering compensation. */
let below: f32 = 1;
let upR: f32 = 1;
let upG: f32 = 1;
let upB: f32 = 1;
let underCoat: f32 = 1;
/** View direction. */
export let ox: f32 = 0;
export let oy: f32 = 0;
export let oz: f32 = 1;

/** The BSDF sample: light direction, and weights. */
export let ix: f32 = 0;
export let iy: f32 = 0;
export let iz: f32 = 0;
export let weightR: f32 = 0;
export let weightG: f32 = 0;
export let weightB: f32 = 0;
export let pdf: f32 = 0;

/** Size of the table of directional albedo of GGX: by roughness, then by cosine. */
const TABLE = 32;
const table = allocate(32 * 32 * 8);

/** GGX alpha of a roughness: never perfectly smooth. */
@inline
function alphaOf(roughness: f32): f32 {
  return max<f32>(roughness * roughness, 0.0004);
}

/** Tabulates the directional albedo of GGX, for a reflectance of 1 and for (1 − cos)⁵. */
export function prepareSurfaces(): void {
  prepareSheen();
  const tilts = 64;
  const turns = 16;
  for (let r = 0; r < TABLE; r++)
    for (let m = 0; m < TABLE; m++) {
      const a = alphaOf(<f32>r / <f32>(TABLE - 1));
      // By the square root of the cosine: it changes most at grazing angles.
      const root = <f32>m / <f32>(TABLE - 1);
      const mu = max<f32>(0.0002, root * root);
      ox = sqrt<f32>(1 - mu * mu);
      oy = 0;
      oz = mu;
      let all: f32 = 0;
      let grazing: f32 = 0;
      for (let i = 0; i < tilts; i++) {
        // Denser where facets are steep: they are few, and may reflect downwards.
        const left: f32 = 1 - (<f32>i + 0.5) / <f32>tilts;
        const part: f32 = (3 * left * left) / <f32>(tilts * turns);
        for (let j = 0; j < turns; j++) {
          sampleVisibleNormal(a, a, ox, oy, oz, 1 - left * left * left, (<f32>j + 0.5) / <f32>turns);
          const d = ox * hx + oz * hz;
          const z: f32 = 2 * d * hz - oz;
          if (z <= 0) continue;
          const share: f32 = part * flatShare(a, z, mu);
          const w = fifth(1 - d);
          all += share * (1 - w);
          grazing += share * w;
        }
      }
      const at = table + ((r * TABLE + m) << 3);
      store<f32>(at, all);
      store<f32>(at, grazing, 4);
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

/** Loads a surface. */
export function loadSurface(at: usize): void {
  baseR = load<f32>(at);
  baseG = load<f32>(at, 4);
  baseB = load<f32>(at, 8);
  rough = load<f32>(at, ROUGHNESS);
  const brushed = load<f32>(at, ANISOTROPY);
  alphaY = alphaOf(rough);
  // As KHR_materials_anisotropy defines it: along the grooves alpha is 1 at full strength.
  alphaX = alphaY + (1 - alphaY) * brushed * brushed;
  // The albedo of anisotropic facets is about that of isotropic ones with the mean squared roughness.
  if (brushed > 0) rough = sqrt<f32>(0.5 * (alphaX + alphaY));
  metal = load<f32>(at, METALNESS);
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
  dispersion = load<f32>(at, DISPERSION);
  film = load<f32>(at, FILM);
  filmIor = load<f32>(at, FILM_IOR);
  filmThickness = load<f32>(at, FILM_THICKNESS);
  const shine = load<f32>(at, SHEEN_STRENGTH);
  sheenR = shine * load<f32>(at, SHEEN);
  sheenG = shine * load<f32>(at, SHEEN + 4);
  sheenB = shine * load<f32>(at, SHEEN + 8);
  sheenMost = max(sheenR, max(sheenG, sheenB));
  sheenRough = load<f32>(at, SHEEN_ROUGHNESS);
  emissionR = emissionOf(at, 0);
  emissionG = emissionOf(at, 1);
  emissionB = emissionOf(at, 2);
}

let rough: f32 = 1;
let coatRough: f32 = 0;

/** Emission colour of a surface, `k` from red to blue. */
export function emissionOf(at: usize, k: usize): f32 {
  const own = load<f32>(at, TINTED) > 0 ? at : at + EMISSION;
  return load<f32>(at, EMISSION_STRENGTH) * load<f32>(own + (k << 2));
}

/** Cosine and sine of the groove rotation. */
export function grooveCos(at: usize): f32 {
  return cosTurns(load<f32>(at, GROOVES_TURN));
}
export function grooveSin(at: usize): f32 {
  return sinTurns(load<f32>(at, GROOVES_TURN));
}

/** Sets the view direction, a unit vector above the surface. */
export function setView(x: f32, y: f32, z: f32): void {
  ox = x;
  oy = y;
  oz = max<f32>(z, 0.0001);
  underSheen = sheenMost > 0 ? 1 - sheenMost * sheenAlbedo(sheenRough, oz) : 1;
  underCoat = underSheen;
  if (coat > 0) {
    look(coatRough, oz);
    underCoat *= 1 - coat * (0.04 * tableA + tableB);
  }
  glassProbability = glass * underCoat;
  // Without clearcoat the first is 1, whatever the share.
  beside = glassProbability < 1 ? (1 - glass) / (1 - glassProbability) : 0;
  over = glassProbability < 1 ? 1 / (1 - glassProbability) : 0;
  look(rough, oz);
  const a = tableA;
  const b = tableB;
  const whole = max<f32>(a + b, 0.05);
  // Multiple scattering between facets.
  const more: f32 = 1 / whole - 1;
  let clear = (straight * a + specular * b) * (1 + straight * more);
  let mirrorR = metal * (baseR * a + b) * (1 + baseR * more) + (1 - metal) * clear;
  let mirrorG = metal * (baseG * a + b) * (1 + baseG * more) + (1 - metal) * clear;
  let mirrorB = metal * (baseB * a + b) * (1 + baseB * more) + (1 - metal) * clear;
  upR = mirrorR / max<f32>(1e-9, f0r * a + f90 * b);
  upG = mirrorG / max<f32>(1e-9, f0g * a + f90 * b);
  upB = mirrorB / max<f32>(1e-9, f0b * a + f90 * b);
  if (film > 0) {
    // A film reflects at most angles about what it does at that of the view.
    filmReflectance(oz, false);
    mirrorR += film * (min<f32>(1, filmR * whole * (1 + filmR * more)) - mirrorR);
    mirrorG += film * (min<f32>(1, filmG * whole * (1 + filmG * more)) - mirrorG);
    mirrorB += film * (min<f32>(1, filmB * whole * (1 + filmB * more)) - mirrorB);
    upFilmR = 1 + filmR * more;
    upFilmG = 1 + filmG * more;
    upFilmB = 1 + filmB * more;
    clear = max(mirrorR, max(mirrorG, mirrorB));
  }
  below = (1 - metal) * max<f32>(0, 1 - clear);
  const m = brightness(mirrorR, mirrorG, mirrorB) * underCoat * beside;
  const matt = below * brightness(baseR, baseG, baseB) * underCoat * beside;
  const d = matt + (1 - underSheen) * brightness(sheenR, sheenG, sheenB) * over;
  coatProbability = (underSheen - underCoat) * over;
  const sum = coatProbability + m + d;
  const each: f32 = sum > 0 ? 1 / sum : 0;
  coatProbability *= each;
  specularProbability = m * each;
  diffuseProbability = d * each;
  diffuseOnly = m == 0 && coat == 0 && sheenMost == 0;
}

/** Diffuse only: no specular lobe. */
export let diffuseOnly: bool = false;

let upFilmR: f32 = 1;
let upFilmG: f32 = 1;
let upFilmB: f32 = 1;

/** Height-correlated shadowing given masking, isotropic. */
@inline
function flatShare(a: f32, i: f32, o: f32): f32 {
  const l = lambda(a, 0, sqrt<f32>(max<f32>(0, 1 - o * o)), 0, o);
  return (1 + l) / (1 + l + lambda(a, 0, sqrt<f32>(max<f32>(0, 1 - i * i)), 0, i));
}

/**
 * Evaluates the BSDF times the cosine for a direction above the surface, for paths that do not go by glass, and the pdf
 * of `sample`.
 */
export function evaluate(x: f32, y: f32, z: f32): void {
  weightR = weightG = weightB = pdf = 0;
  if (z <= 0) return;
  if (diffuseOnly) {
    const share = (below * underCoat * beside * z) / PI;
    weightR = share * baseR;
    weightG = share * baseG;
    weightB = share * baseB;
    pdf = (diffuseProbability * z) / PI;
    return;
  }
  let mx = x + ox;
  let my = y + oy;
  let mz = z + oz;
  const inv: f32 = 1 / sqrt<f32>(mx * mx + my * my + mz * mz);
  mx *= inv;
  my *= inv;
  mz *= inv;
  const d = min<f32>(1, max<f32>(0, mx * ox + my * oy + mz * oz));
  const w = fifth(1 - d);
  const l = lambda(alphaX, alphaY, ox, oy, oz);
  const spread = distribution(alphaX, alphaY, mx, my, mz);
  const mirror = spread / (4 * oz * (1 + l + lambda(alphaX, alphaY, x, y, z)));
  const under = underCoat * beside;
  const matt = (below * under * z) / PI;
  let fr = (f0r + (f90 - f0r) * w) * upR;
  let fg = (f0g + (f90 - f0g) * w) * upG;
  let fb = (f0b + (f90 - f0b) * w) * upB;
  if (film > 0) {
    filmReflectance(d, false);
    fr += film * (filmR * upFilmR - fr);
    fg += film * (filmG * upFilmG - fg);
    fb += film * (filmB * upFilmB - fb);
  }
  weightR = matt * baseR + under * mirror * fr;
  weightG = matt * baseG + under * mirror * fg;
  weightB = matt * baseB + under * mirror * fb;
  pdf = (diffuseProbability * z) / PI + (specularProbability * spread) / (4 * oz * (1 + l));
  if (coat > 0) {
    const lc = lambda(coatAlpha, coatAlpha, ox, oy, oz);
    const dc = distribution(coatAlpha, coatAlpha, mx, my, mz);
    const c =
      (over * underSheen * coat * dc * (0.04 + 0.96 * w)) / (4 * oz * (1 + lc + lambda(coatAlpha, coatAlpha, x, y, z)));
    weightR += c;
    weightG += c;
    weightB += c;
    pdf += (coatProbability * dc) / (4 * oz * (1 + lc));
  }
  if (sheenMost > 0) {
    const c = over * evaluateSheen(sheenRough, mz, z, oz) * z;
    weightR += c * sheenR;
    weightG += c * sheenG;
    weightB += c * sheenB;
  }
}

/** Transmittance of the clearcoat for light that passes straight through (C. Schlick, 1994). */
export function coatTransmittance(at: usize, cosine: f32): f32 {
  return 1 - load<f32>(at, COAT) * (0.04 + 0.96 * fifth(1 - cosine));
}

/** The sampled direction is of a specular lobe. */
export let sampledSpecular: bool = false;

/** Samples a direction, glass aside, with `pdf` and weight (BSDF times cosine over pdf). False if it leads nowhere. */
export function sample(which: f32, u: f32, v: f32): bool {
  let x: f32;
  let y: f32;
  let z: f32;
  sampledSpecular = which >= diffuseProbability;
  if (!sampledSpecular) {
    const radius = sqrt<f32>(u);
    x = radius * cosTurns(v);
    y = radius * sinTurns(v);
    z = sqrt<f32>(max<f32>(0, 1 - u));
  } else {
    const mirror = which < diffuseProbability + specularProbability;
    sampleVisibleNormal(mirror ? alphaX : coatAlpha, mirror ? alphaY : coatAlpha, ox, oy, oz, u, v);
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

/**
 * Fresnel reflectance of a dielectric (A. J. Fresnel, 1823): 1 for total internal reflection. `eta` is the index ahead
 * over that behind.
 */
export function fresnel(cosine: f32, eta: f32): f32 {
  const sine: f32 = (1 - cosine * cosine) / (eta * eta);
  if (sine >= 1) return 1;
  const t: f32 = sqrt<f32>(1 - sine);
  const s = (cosine - eta * t) / (cosine + eta * t);
  const p = (eta * cosine - t) / (eta * cosine + t);
  return 0.5 * (s * s + p * p);
}

/** Sets the sampled direction and its weight. */
export function setSample(x: f32, y: f32, z: f32, r: f32, g: f32, b: f32): void {
  ix = x;
  iy = y;
  iz = z;
  weightR = r;
  weightG = g;
  weightB = b;
}

/** Reflectance of the thin film for red, green and blue. */
export let filmR: f32 = 0;
export let filmG: f32 = 0;
export let filmB: f32 = 0;

/** @param bare the body is clear, as glass is; otherwise its reflectance gives its index */
export function filmReflectance(cosine: f32, bare: bool): void {
  const share: f32 = (ior - 1) / (ior + 1);
  const diffuseOnly = share * share;
  thinFilm(cosine, filmIor, filmThickness, bare ? diffuseOnly : f0r, bare ? diffuseOnly : f0g, bare ? diffuseOnly : f0b);
  filmR = filmRed;
  filmG = filmGreen;
  filmB = filmBlue;
}
