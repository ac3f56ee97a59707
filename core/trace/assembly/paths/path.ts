import { exp } from '../base/maths';
import * as floor from '../lights/floor';
import * as glassLights from '../lights/glass-lights';
import * as glass from '../surfaces/glass';
import * as hit from '../trees/intersect';
import * as backdrop from '../lights/backdrop';
import * as camera from './camera';
import * as selection from '../lights/light-selection';
import * as radiance from './radiance';
import { add, otherSource } from './radiance';
import * as features from './features';
import * as haze from '../lights/haze';
import * as lights from '../lights/lights';
import * as media from '../surfaces/media';
import * as firstHit from './first-hit';
import * as dispersion from '../surfaces/dispersion';
import { here as surfaceHere } from './hit-surface';
import * as point from './shading-point';
import * as atmosphere from '../lights/atmosphere';
import { beginSample, seek, next, skip, position } from '../base/sampler';
import { transmittanceB, transmittanceG, transmittanceR, isVisible } from '../lights/shadow';
import * as scene from '../base/scene';
import * as s from '../surfaces/surface';
import { bsdfMisWeight, lightMisWeight } from '../lights/mis';

/**
 * Path tracing: each vertex samples one light and one BSDF direction, weighted by multiple importance sampling (E.
 * Veach & L. Guibas, “Optimally combining sampling techniques”, 1995). The result of a sample is radiance in scene
 * units, and coverage.
 */
let ox: f32 = 0;
let oy: f32 = 0;
let oz: f32 = 0;
let dx: f32 = 0;
let dy: f32 = 0;
let dz: f32 = 1;

/** Throughput. */
let throughputR: f32 = 1;
let throughputG: f32 = 1;
let throughputB: f32 = 1;
export let coverage: f32 = 0;
/** The gathered radiance covers nothing. */
export let uncovered: bool = false;
/** The path was reflected by the floor. */
export let floorMirrored: bool = false;
/** Centre of the pixel. */
let pixelX: f32 = 0;
let pixelY: f32 = 0;

/** Emission of the surfaces the camera sees. */
export let emissionSeenR: f32 = 0;
export let emissionSeenG: f32 = 0;
export let emissionSeenB: f32 = 0;

/** Traces one sample of a pixel; results are exported variables of this and other modules. */
export function traceSample(x: i32, y: i32, n: i32): void {
  beginSample(x, y, load<u32>(scene.camera, camera.SEED), n);
  pixelX = <f32>x + 0.5;
  pixelY = <f32>y + 0.5;
  camera.generateRay(<f32>x, <f32>y);
  ox = camera.ox;
  oy = camera.oy;
  oz = camera.oz;
  dx = camera.dx;
  dy = camera.dy;
  dz = camera.dz;
  firstHit.begin();
  traceChannels();
  radiance.dropNonFinite();
}

/** Bounces left, by kind. */
let diffuseLeft: i32 = 0;
let glossyLeft: i32 = 0;
let transmissionLeft: i32 = 0;
/** Firefly clamp for light found by BSDF sampling. */
let fireflyClamp: f32 = 0;
/** Pdf of the last scattering direction; negative if no light was sampled at that vertex. */
let pdf: f32 = -1;
let bounces: i32 = 0;
/** Bounces other than through glass. */
let opaqueBounces: i32 = 0;
/**
 * Path length in metres, in total and since the last scattering vertex: passing through a surface does not reset it.
 */
let travelled: f32 = 0;
let sinceVertex: f32 = 0;
/** The path went straight through surfaces only: what it hits is what the camera sees. */
let directView: bool = true;
/** Besides, it went through glass only. */
let seesThroughGlass: bool = true;
/** No bounce of some kind is left: the next hit contributes its emission only. */
let emissionOnly: bool = false;
/** The path passed something that only adds light. */
let passedAdditive: bool = false;
let aboveFloor: bool = false;

/** Traces a path to its end, and once per channel from dispersive glass on. */
function traceChannels(): void {
  const c = scene.camera;
  radiance.begin();
  features.begin();
  dispersion.begin();
  emissionSeenR = emissionSeenG = emissionSeenB = 0;
  throughputR = throughputG = throughputB = 1;
  coverage = 0;
  uncovered = floorMirrored = false;
  media.clear();
  diffuseLeft = load<i32>(c, camera.DIFFUSE_BOUNCES);
  glossyLeft = load<i32>(c, camera.GLOSSY_BOUNCES);
  transmissionLeft = load<i32>(c, camera.TRANSMISSION_BOUNCES);
  fireflyClamp = Infinity;
  pdf = -1;
  bounces = opaqueBounces = 0;
  travelled = sinceVertex = 0;
  directView = seesThroughGlass = true;
  emissionOnly = passedAdditive = false;
  aboveFloor = atmosphere.hasFloor();
  tracePath();
  if (!dispersion.split) return;
  // All channels share the denoiser features.
  features.stop();
  while (dispersion.nextChannel()) {
    restoreAtDispersion();
    tracePath();
  }
  radiance.setCounting(true);
}

/** Continues from the current ray to the end of the path. */
function tracePath(): void {
  const c = scene.camera;
  const limit = load<f32>(c, camera.FIREFLY_CLAMP);
  const oneLight = lights.strategyCount() == 1 && scene.emissiveCount == 0;
  for (let steps = 0; steps < 128; steps++) {
    dimensionBefore = position();
    floorBefore = aboveFloor;
    let found = hit.intersect(ox, oy, oz, dx, dy, dz, 0, Infinity, false);
    let to: f32 = found ? hit.hitT : Infinity;
    if (aboveFloor && seesThroughGlass && dy < 0) {
      const down = (atmosphere.floorHeight() - oy) / dy;
      // Once passed, the floor lies behind.
      if (down > 0 && down < to) {
        aboveFloor = false;
        if (floor.reflects(ox, oz, dx, dy, dz, down)) {
          ox = floor.fromX;
          oy = floor.fromY;
          oz = floor.fromZ;
          dx = floor.mx;
          dy = floor.my;
          dz = floor.mz;
          coverage = 1;
          floorMirrored = true;
          // Reflections in the floor have no features: they are there in some samples only.
          features.stop();
          directView = seesThroughGlass = false;
          // Haze and fog in front of a reflection count from the floor on.
          travelled += down;
          sinceVertex = 0;
          pdf = -1;
          continue;
        }
        // Reflections cover shadows.
        if (floor.isShadowed(ox, oz, dx, dz, down)) {
          if (directView) coverage = 1;
          add(throughputR * atmosphere.floorColour(0), throughputG * atmosphere.floorColour(1), throughputB * atmosphere.floorColour(2), Infinity, otherSource());
          return;
        }
        found = hit.intersect(ox, oy, oz, dx, dy, dz, 0, Infinity, false);
        to = found ? hit.hitT : Infinity;
      }
    }
    if (atmosphere.hasHaze() && inScatter(to) && directView) passedAdditive = true;
    for (let k = 0; k < scene.lampCount; k++) {
      if (!lights.intersect(k, ox, oy, oz, dx, dy, dz, to, sinceVertex, directView && bounces == 0)) continue;
      const weight: f32 = (pdf < 0 ? 1 : bsdfMisWeight(pdf, lights.pdf)) * airTransmittanceTo(lights.far);
      add(throughputR * lights.lightR * weight, throughputG * lights.lightG * weight, throughputB * lights.lightB * weight, fireflyClamp, k);
      if (directView) coverage = 1;
    }
    const inside = media.absorption();
    if (inside) {
      const length = found ? to : 0;
      scaleThroughput(
        exp(-load<f32>(inside) * length),
        exp(-load<f32>(inside, 4) * length),
        exp(-load<f32>(inside, 8) * length),
      );
    }
    if (!found) {
      features.recordMiss(dx, dy, dz, travelled);
      if (seesThroughGlass && load<f32>(c, camera.ENVIRONMENT_VISIBLE) == 0) {
        // Through glass one sees the backdrop; with nothing in front of it the backdrop is composited later.
        if (coverage > 0) backdrop.evaluate(pixelX, pixelY);
        if (coverage > 0) add(throughputR * backdrop.r, throughputG * backdrop.g, throughputB * backdrop.b, fireflyClamp, otherSource());
        else if (passedAdditive) uncovered = true;
        return;
      }
      if (!scene.environment) return;
      lights.evaluateEnvironment(dx, dy, dz);
      const weight: f32 = (pdf < 0 || lights.pdf == 0 ? 1 : bsdfMisWeight(pdf, lights.pdf)) * airTransmittanceTo(Infinity);
      add(throughputR * lights.lightR * weight, throughputG * lights.lightG * weight, throughputB * lights.lightB * weight, fireflyClamp, scene.lampCount);
      return;
    }
    point.setUp(ox, oy, oz, dx, dy, dz, travelled);
    const surface = surfaceHere;
    const alpha = load<f32>(surface, s.ALPHA);
    const additive = load<f32>(surface, s.ADDITIVE) > 0;
    let veiled = false;
    if (!additive && alpha < 1) veiled = next() >= alpha;
    else skip();
    if (veiled || load<f32>(surface, s.CUT) < load<f32>(surface, s.CUT_LEVEL)) {
      passThrough(to);
      continue;
    }
    if (load<f32>(surface, s.HOLDOUT) > 0) return;
    if (atmosphere.hasHaze() && atmosphere.intersectHaze(ox, oy, oz, dx, dy, dz, to)) scaleAll(atmosphere.hazeTransmittance(oy, dy, atmosphere.leaves));
    if (atmosphere.hasFog()) {
      const left = atmosphere.fogTransmittance(oy, dy, to, bounces == 0 && directView);
      if (!additive) {
        const fog: f32 = 1 - left;
        add(fog * throughputR * atmosphere.fogColour(0), fog * throughputG * atmosphere.fogColour(1), fog * throughputB * atmosphere.fogColour(2), fireflyClamp, otherSource());
      }
      scaleAll(left);
    }
    if (!additive && directView) coverage = 1;
    if (!additive) {
      firstHit.record(travelled + to);
      features.recordHit(travelled + to);
    }
    emit(fireflyClamp, additive ? alpha : 1, pdf, to + sinceVertex);
    if (directView && !radiance.muted) {
      const shown: f32 = additive ? alpha : 1;
      emissionSeenR += shown * throughputR * s.emissionR;
      emissionSeenG += shown * throughputG * s.emissionG;
      emissionSeenB += shown * throughputB * s.emissionB;
    }
    if ((emissionOnly && !additive) || load<f32>(surface, s.OVERLAY) > 0) return;
    s.setView(
      -(dx * point.tx + dy * point.ty + dz * point.tz),
      -(dx * point.bx + dy * point.by + dz * point.bz),
      -(dx * point.nx + dy * point.ny + dz * point.nz),
    );
    // A single light, or a single lobe, needs no random choice.
    const which: f32 = oneLight ? (skip(), 0) : next();
    const lu = next();
    const lv = next();
    let part: f32 = 1;
    if (s.glassProbability > 0) part = next();
    else skip();
    const lobe: f32 = s.diffuseOnly && s.glassProbability == 0 ? (skip(), 0) : next();
    const du = next();
    const dv = next();
    lights.prepareSelection(point.px, point.py, point.pz);
    if (s.glassProbability < 1) directLight(which, lu, lv, (1 - s.glassProbability) * (additive ? alpha : 1), additive);
    if (additive) {
      passedAdditive = true;
      passThrough(to);
      continue;
    }
    const begins = point.offset();
    let crossed = false;
    if (part < s.glassProbability) {
      const thin = load<f32>(surface, s.THICKNESS) <= 0;
      const id = point.medium;
      if (!thin && !media.isBoundary(id, s.ior, point.front)) {
        // Boundary of a lower-priority medium: ignored.
        if (point.front) enterMedium(id);
        else media.leave(id);
        passThrough(to);
        continue;
      }
      let eta: f32;
      if (thin) eta = s.ior;
      else {
        const ahead = media.indexBeyond(id, dispersedIor(), point.front);
        eta = point.front ? ahead / media.index() : ahead / max(media.index(), dispersedIor());
      }
      glassLights.arrive(eta, thin, seesThroughGlass && aboveFloor);
      if (glassLights.sampleLight(which, lu, lv, !seesThroughGlass || load<f32>(c, camera.ENVIRONMENT_VISIBLE) > 0))
        addLight(throughputR * glassLights.r, throughputG * glassLights.g, throughputB * glassLights.b, glassLights.x, glassLights.y, glassLights.z);
      if (!glass.sampleGlass(eta, thin, lobe, du, dv)) return;
      scaleThroughput(s.weightR, s.weightG, s.weightB);
      crossed = glass.transmitted;
      // A body tints light once: on entering.
      features.recordBounce(s.glassProbability > 0.5, crossed ? glass.reflectance <= 0.5 : glass.reflectance > 0.5, crossed && (thin || point.front));
      if (crossed && thin) {
        scaleThroughput(s.baseR, s.baseG, s.baseB);
        passThrough(to);
        continue;
      }
      if (crossed) {
        // Light enters and leaves, and is tinted once in all.
        scaleThroughput(sqrt<f32>(s.baseR), sqrt<f32>(s.baseG), sqrt<f32>(s.baseB));
        if (point.front) enterMedium(id);
        else media.leave(id);
      }
      if (--transmissionLeft < 0) emissionOnly = true;
    } else {
      if (!s.sample(lobe, du, dv)) return;
      features.recordBounce(s.specularProbability * (1 - s.glassProbability) > 0.5, s.sampledSpecular, true);
      if (s.sampledSpecular ? --glossyLeft < 0 : --diffuseLeft < 0) emissionOnly = true;
      // Glass was chosen with its own probability, so the others keep their weights.
      scaleThroughput(s.weightR, s.weightG, s.weightB);
      pdf = s.pdf * (1 - s.glassProbability);
    }
    directView = false;
    if (!crossed) seesThroughGlass = false;
    bounces++;
    travelled += to;
    fireflyClamp = limit;
    sinceVertex = 0;
    selection.leaveVertex();
    setDirection(s.ix, s.iy, s.iz);
    if (part < s.glassProbability) pdf = glassLights.pdfOfSent(dy);
    const out = point.gx * dx + point.gy * dy + point.gz * dz;
    // Reflection only to the side the face looks, transmission only to the other.
    if (crossed ? out >= 0 : out <= 0) return;
    const side: f32 = out < 0 ? -begins : begins;
    ox = point.px + side * point.gx;
    oy = point.py + side * point.gy;
    oz = point.pz + side * point.gz;
    // Russian roulette; light transmitted by glass, where it is worth most, is spared a little longer.
    if (!crossed) opaqueBounces++;
    if (opaqueBounces > 2 || bounces > 3) {
      const survives = min<f32>(0.98, max(throughputR, max(throughputG, throughputB)));
      if (next() >= survives) return;
      scaleAll(1 / survives);
    }
  }
}

@inline
function scaleThroughput(r: f32, g: f32, b: f32): void {
  throughputR *= r;
  throughputG *= g;
  throughputB *= b;
}
@inline
function scaleAll(by: f32): void {
  scaleThroughput(by, by, by);
}

/** Sets the direction from the local frame of the surface. */
function setDirection(x: f32, y: f32, z: f32): void {
  dx = x * point.tx + y * point.bx + z * point.nx;
  dy = x * point.ty + y * point.by + z * point.ny;
  dz = x * point.tz + y * point.bz + z * point.nz;
  const inv: f32 = 1 / sqrt<f32>(dx * dx + dy * dy + dz * dz);
  dx *= inv;
  dy *= inv;
  dz *= inv;
}

/** Continues in the same direction from just behind a hit at this distance. */
function passThrough(to: f32): void {
  travelled += to;
  sinceVertex += to;
  const begins = point.offset();
  ox = point.px - begins * point.gx;
  oy = point.py - begins * point.gy;
  oz = point.pz - begins * point.gz;
}

function enterMedium(id: i32): void {
  const at = surfaceHere + s.ABSORBED;
  media.enter(id, s.ior, load<f32>(at), load<f32>(at, 4), load<f32>(at, 8));
}

/** Sampler position, and whether the path was above the floor, before the current hit. */
let dimensionBefore: u32 = 0;
let floorBefore: bool = false;

/** Saves the path as it was before the current hit. */
function saveBeforeHit(): void {
  dispersion.enter(throughputR, throughputG, throughputB);
  media.save();
  selection.save();
  const at = dispersion.saved;
  store<f32>(at, ox);
  store<f32>(at, oy, 4);
  store<f32>(at, oz, 8);
  store<f32>(at, dx, 12);
  store<f32>(at, dy, 16);
  store<f32>(at, dz, 20);
  store<f32>(at, fireflyClamp, 24);
  store<f32>(at, pdf, 28);
  store<f32>(at, travelled, 32);
  store<i32>(at, diffuseLeft, 36);
  store<i32>(at, glossyLeft, 40);
  store<i32>(at, transmissionLeft, 44);
  store<i32>(at, bounces, 48);
  store<i32>(at, opaqueBounces, 52);
  store<u32>(at, dimensionBefore, 56);
  store<u8>(at, u8(directView), 60);
  store<u8>(at, u8(seesThroughGlass), 61);
  store<u8>(at, u8(emissionOnly), 62);
  store<u8>(at, u8(passedAdditive), 63);
  store<u8>(at, u8(floorBefore), 64);
  store<f32>(at, sinceVertex, 68);
}

/** Returns to the dispersive glass. Radiance gathered up to there has been counted. */
function restoreAtDispersion(): void {
  radiance.setCounting(false);
  media.restore();
  selection.restore();
  const at = dispersion.saved;
  ox = load<f32>(at);
  oy = load<f32>(at, 4);
  oz = load<f32>(at, 8);
  dx = load<f32>(at, 12);
  dy = load<f32>(at, 16);
  dz = load<f32>(at, 20);
  fireflyClamp = load<f32>(at, 24);
  pdf = load<f32>(at, 28);
  travelled = load<f32>(at, 32);
  diffuseLeft = load<i32>(at, 36);
  glossyLeft = load<i32>(at, 40);
  transmissionLeft = load<i32>(at, 44);
  bounces = load<i32>(at, 48);
  opaqueBounces = load<i32>(at, 52);
  seek(load<u32>(at, 56));
  directView = load<u8>(at, 60) != 0;
  seesThroughGlass = load<u8>(at, 61) != 0;
  emissionOnly = load<u8>(at, 62) != 0;
  passedAdditive = load<u8>(at, 63) != 0;
  aboveFloor = load<u8>(at, 64) != 0;
  sinceVertex = load<f32>(at, 68);
  throughputR = dispersion.throughputR;
  throughputG = dispersion.throughputG;
  throughputB = dispersion.throughputB;
}

/** Index of refraction for the channel of this path, as KHR_materials_dispersion defines it. */
function dispersedIor(): f32 {
  if (s.dispersion <= 0) return s.ior;
  if (dispersion.channel < 0) {
    if (dispersion.split) {
      throughputR = dispersion.throughputR;
      throughputG = dispersion.throughputG;
      throughputB = dispersion.throughputB;
      radiance.setCounting(true);
    } else saveBeforeHit();
    dispersion.beginChannel();
    if (dispersion.channel != 0) throughputR = 0;
    if (dispersion.channel != 1) throughputG = 0;
    if (dispersion.channel != 2) throughputB = 0;
  }
  return max<f32>(1, s.ior + (s.ior - 1) * 0.025 * s.dispersion * <f32>(dispersion.channel - 1));
}

function emit(fireflyClamp: f32, share: f32, pdf: f32, far: f32): void {
  if (!(s.emissionR + s.emissionG + s.emissionB > 0)) return;
  let weight = share;
  if (pdf >= 0 && load<f32>(surfaceHere, s.IN_LIGHT_LIST) > 0) {
    const cosine = abs(point.gx * dx + point.gy * dy + point.gz * dz);
    const other = lights.emissivePdf(surfaceHere, far, cosine);
    weight *= bsdfMisWeight(pdf, other);
  }
  add(weight * throughputR * s.emissionR, weight * throughputG * s.emissionG, weight * throughputB * s.emissionB, fireflyClamp, scene.lampCount + 1);
}

/** Transmittance of air up to a hit at this distance. */
@inline
function airTransmittanceTo(far: f32): f32 {
  return atmosphere.airTransmittance(ox, oy, oz, dx, dy, dz, far, bounces == 0 && directView);
}

/**
 * Direct light from a lamp, the environment or an emissive surface.
 *
 * @param alone no path continues from here that might hit the same light
 */
function directLight(which: f32, u: f32, v: f32, share: f32, alone: bool): void {
  if (!lights.sample(which, point.px, point.py, point.pz, u, v)) return;
  const out = lights.lx * point.gx + lights.ly * point.gy + lights.lz * point.gz;
  if (out <= 0) return;
  s.evaluate(
    lights.lx * point.tx + lights.ly * point.ty + lights.lz * point.tz,
    lights.lx * point.bx + lights.ly * point.by + lights.lz * point.bz,
    lights.lx * point.nx + lights.ly * point.ny + lights.lz * point.nz,
  );
  if (s.pdf == 0) return;
  // Lights that no ray can hit, or that cast no shadow and are not weighted, count in full.
  const weight: f32 =
    alone || lights.pdf == 0 || !lights.castsShadow ? share : share * lightMisWeight(lights.pdf, s.pdf * (1 - s.glassProbability));
  const begins = point.offset();
  addLight(
    throughputR * s.weightR * lights.lightR * weight,
    throughputG * s.weightG * lights.lightG * weight,
    throughputB * s.weightB * lights.lightB * weight,
    point.px + begins * point.gx,
    point.py + begins * point.gy,
    point.pz + begins * point.gz,
  );
}

/** In-scattering of haze at one position of the ray. Returns whether there is any. */
function inScatter(to: f32): bool {
  if (bounces > load<i32>(scene.camera, camera.AIR) || !haze.sampleLight(ox, oy, oz, dx, dy, dz, to)) return false;
  return addLight(throughputR * haze.r, throughputG * haze.g, throughputB * haze.b, haze.x, haze.y, haze.z);
}

/**
 * Adds radiance of the sampled light if it is visible from a point. Returns whether there was any to arrive. It is
 * never clamped: light sampling finds nothing brighter than the light is; rare bright samples come from BSDF sampling.
 */
function addLight(r: f32, g: f32, b: f32, x: f32, y: f32, z: f32): bool {
  if (!(r + g + b > 0)) return false;
  const source = lights.lightIndex;
  if (!lights.castsShadow) add(r, g, b, Infinity, source);
  else if (isVisible(x, y, z)) add(r * transmittanceR, g * transmittanceG, b * transmittanceB, Infinity, source);
  return true;
}
