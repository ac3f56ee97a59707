import { cosTurns, exp, sinTurns } from './maths';
import * as glass from './glass';
import * as hit from './intersect';
import * as backdrop from './backdrop';
import * as camera from './camera';
import * as gathered from './gathered';
import { add, surroundings } from './gathered';
import * as guide from './guide';
import * as lamp from './lamps';
import * as media from './media';
import * as met from './met';
import * as place from './place';
import * as room from './room';
import { beginSample, next, skip } from './sampler';
import { leftB, leftG, leftR, reaches } from './shadow';
import * as scene from './scene';
import * as s from './surface';
import { byChance, byLamp } from './weigh';

/**
 * Paths from the camera: where one meets a surface it is lit by one light taken at random and goes on in one direction
 * taken at random, both weighed against each other by how likely either was (E. Veach & L. Guibas, “Optimally
 * combining sampling techniques”, 1995). What it gathers is added to the pixel: light in the units of the scene, and
 * how much of it is covered.
 */
const MATT: usize = 76;
const BRIGHTEST: usize = 80;
const ROUND: usize = 84;
const GRAIN: usize = 88;
export const EXPOSURE: usize = 92;
const GLOSSY: usize = 96;
const GLASS: usize = 100;
let ox: f32 = 0;
let oy: f32 = 0;
let oz: f32 = 0;
let dx: f32 = 0;
let dy: f32 = 0;
let dz: f32 = 1;

/** What of further light the path lets through. */
let tr: f32 = 1;
let tg: f32 = 1;
let tb: f32 = 1;
export let covered: f32 = 0;
/** What the path has gathered covers nothing. */
export let uncovered: bool = false;
/** The path has come by a floor that mirrors. */
export let mirrored: bool = false;
/** The middle of the pixel. */
let pixelX: f32 = 0;
let pixelY: f32 = 0;

/** Light of their own of the surfaces that the camera sees. */
export let ownR: f32 = 0;
export let ownG: f32 = 0;
export let ownB: f32 = 0;

/** Follows a sample of a pixel; what it comes to is told beside. */
export function take(x: i32, y: i32, n: i32): void {
  beginSample(x, y, load<u32>(scene.camera, GRAIN), n);
  pixelX = <f32>x + 0.5;
  pixelY = <f32>y + 0.5;
  camera.aim(<f32>x, <f32>y);
  ox = camera.ox;
  oy = camera.oy;
  oz = camera.oz;
  dx = camera.dx;
  dy = camera.dy;
  dz = camera.dz;
  met.begin();
  follow();
  gathered.mend();
}

/** A channel that glass parts light into; below 0 before it has. */
let channel: i32 = -1;

function follow(): void {
  const c = scene.camera;
  gathered.begin();
  guide.begin();
  ownR = ownG = ownB = 0;
  tr = tg = tb = 1;
  covered = 0;
  uncovered = mirrored = false;
  channel = -1;
  media.outOfAll();
  let matt = load<i32>(c, MATT);
  let glossy = load<i32>(c, GLOSSY);
  let glasses = load<i32>(c, GLASS);
  const limit = load<f32>(c, BRIGHTEST);
  let brightest: f32 = Infinity;
  /** How likely the direction was; below 0 where no light was taken for the place it comes from. */
  let likely: f32 = -1;
  let bounces = 0;
  /** Those that were not through glass. */
  let turned = 0;
  /** Metres that the path has come. */
  let gone: f32 = 0;
  /** What has been passed straight through, so that the path is still what the camera sees. */
  let straight = true;
  /** Only glass has been gone through, besides. */
  let through = true;
  /** There were as many surfaces of a kind as may be: what is met next counts with what shines there by itself. */
  let last = false;
  /** Something that only adds light has been passed. */
  let added = false;
  let floor = room.hasFloor();
  const oneLight = lamp.kinds() == 1 && scene.glowCount == 0;
  for (let steps = 0; steps < 128; steps++) {
    let found = hit.intersect(ox, oy, oz, dx, dy, dz, 0, Infinity, false);
    let to: f32 = found ? hit.hitT : Infinity;
    if (floor && through && dy < 0) {
      const down = (room.floorHeight() - oy) / dy;
      // Once it is passed it lies behind.
      if (down > 0 && down < to) {
        floor = false;
        if (mirrors(down)) {
          covered = 1;
          mirrored = true;
          // What a floor mirrors is told by its light alone: it is there in some samples, and in others not.
          guide.end();
          straight = through = false;
          // Dust and fog before a mirror image count from the floor on.
          gone += down;
          likely = -1;
          continue;
        }
        // Reflections lie over shadows.
        if (catches(down, straight)) return;
        found = hit.intersect(ox, oy, oz, dx, dy, dz, 0, Infinity, false);
        to = found ? hit.hitT : Infinity;
      }
    }
    if (room.hasHaze() && airlight(to, brightest) && straight) added = true;
    for (let k = 0; k < scene.lampCount; k++) {
      if (!lamp.met(k, ox, oy, oz, dx, dy, dz, to, straight && bounces == 0)) continue;
      const weight: f32 = likely < 0 ? 1 : byChance(likely, lamp.likely);
      add(tr * lamp.lightR * weight, tg * lamp.lightG * weight, tb * lamp.lightB * weight, brightest, k);
      if (straight) covered = 1;
    }
    const inside = media.absorbs();
    if (inside) {
      const length = found ? to : 0;
      tr *= exp(-load<f32>(inside) * length);
      tg *= exp(-load<f32>(inside, 4) * length);
      tb *= exp(-load<f32>(inside, 8) * length);
    }
    if (!found) {
      guide.meetNothing(dx, dy, dz, gone);
      if (through && load<f32>(c, ROUND) == 0) {
        // What is seen through glass is what is behind it; with nothing before it the backdrop is added later.
        if (covered > 0) backdrop.look(pixelX, pixelY);
        if (covered > 0) add(tr * backdrop.behindR, tg * backdrop.behindG, tb * backdrop.behindB, brightest, surroundings());
        else if (added) uncovered = true;
        return;
      }
      if (!scene.sky) return;
      lamp.lookAtSky(dx, dy, dz);
      const weight: f32 = likely < 0 || lamp.likely == 0 ? 1 : byChance(likely, lamp.likely);
      add(tr * lamp.lightR * weight, tg * lamp.lightG * weight, tb * lamp.lightB * weight, brightest, scene.lampCount);
      return;
    }
    place.arrive(ox, oy, oz, dx, dy, dz, gone);
    const worn = place.wornHere();
    const alpha = load<f32>(worn, s.ALPHA);
    const additive = load<f32>(worn, s.ADDITIVE) > 0;
    let veiled = false;
    if (!additive && alpha < 1) veiled = next() >= alpha;
    else skip();
    if (veiled || load<f32>(worn, s.CUT) < load<f32>(worn, s.CUT_LEVEL)) {
      gone += to;
      goOn();
      continue;
    }
    if (load<f32>(worn, s.COVERS) > 0) return;
    if (room.hasHaze() && room.crosses(ox, oy, oz, dx, dy, dz, to)) dim(room.throughHaze(oy, dy, room.leaves));
    if (room.hasFog()) {
      const left = room.throughFog(oy, dy, to, bounces == 0 && straight);
      if (!additive) {
        const fog: f32 = 1 - left;
        add(fog * tr * room.fogColour(0), fog * tg * room.fogColour(1), fog * tb * room.fogColour(2), brightest, surroundings());
      }
      dim(left);
    }
    if (!additive && straight) covered = 1;
    if (!additive) {
      met.meet(gone + to);
      guide.meet(gone + to);
    }
    emit(brightest, additive ? alpha : 1, likely, to);
    if (straight) {
      const shown: f32 = additive ? alpha : 1;
      ownR += shown * tr * s.glowR;
      ownG += shown * tg * s.glowG;
      ownB += shown * tb * s.glowB;
    }
    if ((last && !additive) || load<f32>(worn, s.OVERLAY) > 0) return;
    s.takeView(
      -(dx * place.tx + dy * place.ty + dz * place.tz),
      -(dx * place.bx + dy * place.by + dz * place.bz),
      -(dx * place.nx + dy * place.ny + dz * place.nz),
    );
    // With one light, or one way to go on, there is nothing to choose.
    const which: f32 = oneLight ? (skip(), 0) : next();
    const lu = next();
    const lv = next();
    let part: f32 = 1;
    if (s.byGlass > 0) part = next();
    else skip();
    const lobe: f32 = s.plain && s.byGlass == 0 ? (skip(), 0) : next();
    const du = next();
    const dv = next();
    if (s.byGlass < 1) direct(which, lu, lv, (1 - s.byGlass) * (additive ? alpha : 1), brightest);
    if (additive) {
      added = true;
      gone += to;
      goOn();
      continue;
    }
    const begins = place.apart();
    let crossed = false;
    if (part < s.byGlass) {
      const thin = load<f32>(worn, s.THICKNESS) <= 0;
      const id = place.medium;
      if (!thin && !media.matters(id, s.ior, place.front)) {
        // A border inside of a denser body is none.
        if (place.front) enterHere(id);
        else media.leave(id);
        gone += to;
        goOn();
        continue;
      }
      let eta: f32;
      if (thin) eta = s.ior;
      else {
        const ahead = media.indexBeyond(id, partedIor(), place.front);
        eta = place.front ? ahead / media.index() : ahead / max(media.index(), partedIor());
      }
      if (!glass.sampleGlass(eta, thin, lobe, du, dv)) return;
      tr *= s.weightR;
      tg *= s.weightG;
      tb *= s.weightB;
      crossed = glass.through;
      // The colour of a body counts once: as light goes in.
      guide.goOn(s.byGlass > 0.5, crossed ? glass.off <= 0.5 : glass.off > 0.5, crossed && (thin || place.front));
      if (crossed && thin) {
        tr *= s.baseR;
        tg *= s.baseG;
        tb *= s.baseB;
        gone += to;
        goOn();
        continue;
      }
      if (crossed) {
        // Light goes in and out again, and is coloured once.
        tr *= sqrt<f32>(s.baseR);
        tg *= sqrt<f32>(s.baseG);
        tb *= sqrt<f32>(s.baseB);
        if (place.front) enterHere(id);
        else media.leave(id);
      }
      likely = -1;
      if (--glasses < 0) last = true;
    } else {
      if (!s.sample(lobe, du, dv)) return;
      guide.goOn(s.byMirror * (1 - s.byGlass) > 0.5, s.mirrored, true);
      if (s.mirrored ? --glossy < 0 : --matt < 0) last = true;
      // Glass has its share of the paths, so what is left of them counts as it is.
      tr *= s.weightR;
      tg *= s.weightG;
      tb *= s.weightB;
      likely = s.pdf * (1 - s.byGlass);
    }
    straight = false;
    if (!crossed) through = false;
    bounces++;
    gone += to;
    brightest = limit;
    head(s.ix, s.iy, s.iz);
    const out = place.gx * dx + place.gy * dy + place.gz * dz;
    // Off a face only to where it looks, through it only to where it does not.
    if (crossed ? out >= 0 : out <= 0) return;
    const side: f32 = out < 0 ? -begins : begins;
    ox = place.px + side * place.gx;
    oy = place.py + side * place.gy;
    oz = place.pz + side * place.gz;
    // Paths that bring little end early, and those that go on count for them; what comes through glass, where it is worth
    // most, a little later.
    if (!crossed) turned++;
    if (turned > 2 || bounces > 3) {
      const survives = min<f32>(0.98, max(tr, max(tg, tb)));
      if (next() >= survives) return;
      dim(1 / survives);
    }
  }
}

@inline
function dim(by: f32): void {
  tr *= by;
  tg *= by;
  tb *= by;
}

/** On in a direction of the surface's frame. */
function head(x: f32, y: f32, z: f32): void {
  dx = x * place.tx + y * place.bx + z * place.nx;
  dy = x * place.ty + y * place.by + z * place.ny;
  dz = x * place.tz + y * place.bz + z * place.nz;
  const inv: f32 = 1 / sqrt<f32>(dx * dx + dy * dy + dz * dz);
  dx *= inv;
  dy *= inv;
  dz *= inv;
}

/** On in the same direction, from just behind the face. */
function goOn(): void {
  const begins = place.apart();
  ox = place.px - begins * place.gx;
  oy = place.py - begins * place.gy;
  oz = place.pz - begins * place.gz;
}

function enterHere(id: i32): void {
  const at = place.wornHere() + s.ABSORBED;
  media.enter(id, s.ior, load<f32>(at), load<f32>(at, 4), load<f32>(at, 8));
}

/** The index for the part of the light that this path is, as KHR_materials_dispersion has it. */
function partedIor(): f32 {
  if (s.dispersion <= 0) return s.ior;
  if (channel < 0) {
    channel = min(2, <i32>(next() * 3));
    tr *= channel == 0 ? 3 : 0;
    tg *= channel == 1 ? 3 : 0;
    tb *= channel == 2 ? 3 : 0;
  }
  return max<f32>(1, s.ior + (s.ior - 1) * 0.025 * s.dispersion * <f32>(channel - 1));
}

function emit(brightest: f32, share: f32, likely: f32, far: f32): void {
  if (!(s.glowR + s.glowG + s.glowB > 0)) return;
  let weight = share;
  if (likely >= 0 && load<f32>(place.wornHere(), s.SOUGHT) > 0) {
    const cosine = abs(place.gx * dx + place.gy * dy + place.gz * dz);
    const other = lamp.likelyGlow(place.wornHere(), far, cosine);
    weight *= byChance(likely, other);
  }
  add(weight * tr * s.glowR, weight * tg * s.glowG, weight * tb * s.glowB, brightest, scene.lampCount + 1);
}

/** Light that comes straight from a lamp or the sky. */
function direct(which: f32, u: f32, v: f32, share: f32, brightest: f32): void {
  if (!lamp.take(which, place.px, place.py, place.pz, u, v)) return;
  const out = lamp.lx * place.gx + lamp.ly * place.gy + lamp.lz * place.gz;
  if (out <= 0) return;
  s.evaluate(
    lamp.lx * place.tx + lamp.ly * place.ty + lamp.lz * place.tz,
    lamp.lx * place.bx + lamp.ly * place.by + lamp.lz * place.bz,
    lamp.lx * place.nx + lamp.ly * place.ny + lamp.lz * place.nz,
  );
  if (s.pdf == 0) return;
  // What no ray meets by chance, or not to be weighed since it throws no shadow, counts in full.
  const weight: f32 =
    lamp.likely == 0 || !lamp.shadows ? share : share * byLamp(lamp.likely, s.pdf * (1 - s.byGlass));
  const er = tr * s.weightR * lamp.lightR * weight;
  const eg = tg * s.weightG * lamp.lightG * weight;
  const eb = tb * s.weightB * lamp.lightB * weight;
  if (!(er + eg + eb > 0)) return;
  const source = lamp.taken;
  if (!lamp.shadows) return add(er, eg, eb, brightest, source);
  const begins = place.apart();
  const there = reaches(
    place.px + begins * place.gx,
    place.py + begins * place.gy,
    place.pz + begins * place.gz,
    begins,
  );
  if (there) add(er * leftR, eg * leftG, eb * leftB, brightest, source);
}

/** Light that dust turns towards where the ray begins, from one place of the ray. Whether there is some. */
function airlight(to: f32, brightest: f32): bool {
  if (!room.crosses(ox, oy, oz, dx, dy, dz, to)) return false;
  const from = room.enters;
  const length = room.leaves - from;
  const t = from + length * next();
  const x = ox + t * dx;
  const y = oy + t * dy;
  const z = oz + t * dz;
  if (!lamp.take(next(), x, y, z, next(), next())) return false;
  const share =
    length *
    room.dust(y) *
    room.throughHaze(oy, dy, t) *
    room.turned(lamp.lx * dx + lamp.ly * dy + lamp.lz * dz);
  const er = tr * share * lamp.lightR * room.hazeColour(0);
  const eg = tg * share * lamp.lightG * room.hazeColour(1);
  const eb = tb * share * lamp.lightB * room.hazeColour(2);
  if (!(er + eg + eb > 0)) return false;
  const source = lamp.taken;
  if (!lamp.shadows) add(er, eg, eb, brightest, source);
  else if (reaches(x, y, z, 0)) add(er * leftR, eg * leftG, eb * leftB, brightest, source);
  return true;
}

/** Places of lamps that are weighed against each other for the shadow on a floor. */
const TRIES = 8;
const tried = memory.data(8 * 5 * 4);

/**
 * Whether the floor shows shadow at a place of the ray; if so, the path ends there. It does so as often as the share
 * of the light that is kept away: of some places of lamps one is chosen as often as it is bright, and looked at.
 */
function catches(down: f32, straight: bool): bool {
  const x = ox + down * dx;
  const z = oz + down * dz;
  const y = room.floorHeight();
  const strength = room.floorStrength() * room.floorShare(x, z);
  if (next() >= strength) return false;
  let sum: f32 = 0;
  for (let k = 0; k < TRIES; k++) {
    const at = tried + <usize>k * 20;
    store<f32>(at, 0);
    if (!lamp.take(next(), x, y, z, next(), next()) || !lamp.shadows || lamp.ly <= 0) continue;
    const bright: f32 = (0.2126 * lamp.lightR + 0.7152 * lamp.lightG + 0.0722 * lamp.lightB) * lamp.ly;
    sum += bright;
    store<f32>(at, bright);
    store<f32>(at, lamp.lx, 4);
    store<f32>(at, lamp.ly, 8);
    store<f32>(at, lamp.lz, 12);
    store<f32>(at, lamp.far, 16);
  }
  const pick = next() * sum;
  if (!(sum > 0)) return false;
  let k = 0;
  for (let so = load<f32>(tried); k < TRIES - 1 && so <= pick; so += load<f32>(tried + <usize>k * 20)) k++;
  const at = tried + <usize>k * 20;
  const begins: f32 = 0.00002 * (1 + max(abs(x), max(abs(y), abs(z))) + down);
  lamp.aim(load<f32>(at, 4), load<f32>(at, 8), load<f32>(at, 12), load<f32>(at, 16));
  const there = reaches(x, y + begins, z, begins);
  if (there && next() < (leftR + leftG + leftB) / 3) return false;
  if (straight) covered = 1;
  add(tr * room.floorColour(0), tg * room.floorColour(1), tb * room.floorColour(2), Infinity, surroundings());
  return true;
}

/** Whether the floor mirrors something at a place of the ray; if so, the path goes on there. */
function mirrors(down: f32): bool {
  const x = ox + down * dx;
  const z = oz + down * dz;
  const y = room.floorHeight();
  const share = room.floorMirror() * room.floorShare(x, z);
  if (share <= 0 || next() >= share) return false;
  const radius = room.floorSpread() * sqrt<f32>(next());
  const turn = next();
  const far = sqrt<f32>(dx * dx + dz * dz);
  // Beside the mirrored ray, across it and along it.
  const ax: f32 = far > 1e-6 ? dz / far : 1;
  const az: f32 = far > 1e-6 ? -dx / far : 0;
  const p = radius * cosTurns(turn);
  const q = radius * sinTurns(turn);
  let mx = dx + p * ax - q * dy * az;
  let my = -dy + q * far;
  let mz = dz + p * az + q * dy * ax;
  if (my <= 1e-4) my = 1e-4;
  const inv: f32 = 1 / sqrt<f32>(mx * mx + my * my + mz * mz);
  mx *= inv;
  my *= inv;
  mz *= inv;
  const begins: f32 = 0.00002 * (1 + max(abs(x), max(abs(y), abs(z))) + down);
  if (!hit.intersect(x, y + begins, z, mx, my, mz, 0, Infinity, true)) return false;
  ox = x;
  oy = y + begins;
  oz = z;
  dx = mx;
  dy = my;
  dz = mz;
  return true;
}
