import { exp } from './maths';
import * as floor from './floor';
import * as frosted from './frosted';
import * as glass from './glass';
import * as hit from './intersect';
import * as backdrop from './backdrop';
import * as camera from './camera';
import * as choice from './choice';
import * as gathered from './gathered';
import { add, surroundings } from './gathered';
import * as guide from './guide';
import * as haze from './haze';
import * as lamp from './lamps';
import * as media from './media';
import * as met from './met';
import * as parting from './parting';
import * as place from './place';
import * as room from './room';
import { beginSample, goTo, next, skip, where } from './sampler';
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
const AIR: usize = 112;
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

/** Bounces of each kind that may still come. */
let matt: i32 = 0;
let glossy: i32 = 0;
let glasses: i32 = 0;
/** Light of one place is at most so bright. */
let brightest: f32 = 0;
/** How likely the direction was; below 0 where no light was taken for the place it comes from. */
let likely: f32 = -1;
let bounces: i32 = 0;
/** Those that were not through glass. */
let turned: i32 = 0;
/** Metres that the path has come, and those since it was sent in its direction: what passes it on keeps that. */
let gone: f32 = 0;
let since: f32 = 0;
/** What has been passed straight through, so that the path is still what the camera sees. */
let straight: bool = true;
/** Only glass has been gone through, besides. */
let through: bool = true;
/** There were as many surfaces of a kind as may be: what is met next counts with what shines there by itself. */
let last: bool = false;
/** Something that only adds light has been passed. */
let added: bool = false;
let aboveFloor: bool = false;

/** Follows a path to its end, and where glass parts its light, a path for each channel from there. */
function follow(): void {
  const c = scene.camera;
  gathered.begin();
  guide.begin();
  parting.begin();
  ownR = ownG = ownB = 0;
  tr = tg = tb = 1;
  covered = 0;
  uncovered = mirrored = false;
  media.outOfAll();
  matt = load<i32>(c, MATT);
  glossy = load<i32>(c, GLOSSY);
  glasses = load<i32>(c, GLASS);
  brightest = Infinity;
  likely = -1;
  bounces = turned = 0;
  gone = since = 0;
  straight = through = true;
  last = added = false;
  aboveFloor = room.hasFloor();
  followOn();
  if (!parting.done) return;
  // What grain is taken out by is the same for all of them.
  guide.end();
  while (parting.nextChannel()) {
    comeBack();
    followOn();
  }
  gathered.heed(true);
}

/** On from where the path is, to its end. */
function followOn(): void {
  const c = scene.camera;
  const limit = load<f32>(c, BRIGHTEST);
  const oneLight = lamp.kinds() == 1 && scene.glowCount == 0;
  for (let steps = 0; steps < 128; steps++) {
    begun = where();
    floorThen = aboveFloor;
    let found = hit.intersect(ox, oy, oz, dx, dy, dz, 0, Infinity, false);
    let to: f32 = found ? hit.hitT : Infinity;
    if (aboveFloor && through && dy < 0) {
      const down = (room.floorHeight() - oy) / dy;
      // Once it is passed it lies behind.
      if (down > 0 && down < to) {
        aboveFloor = false;
        if (floor.mirrors(ox, oz, dx, dy, dz, down)) {
          ox = floor.fromX;
          oy = floor.fromY;
          oz = floor.fromZ;
          dx = floor.mx;
          dy = floor.my;
          dz = floor.mz;
          covered = 1;
          mirrored = true;
          // What a floor mirrors is told by its light alone: it is there in some samples, and in others not.
          guide.end();
          straight = through = false;
          // Dust and fog before a mirror image count from the floor on.
          gone += down;
          since = 0;
          likely = -1;
          continue;
        }
        // Reflections lie over shadows.
        if (floor.catches(ox, oz, dx, dz, down)) {
          if (straight) covered = 1;
          add(tr * room.floorColour(0), tg * room.floorColour(1), tb * room.floorColour(2), Infinity, surroundings());
          return;
        }
        found = hit.intersect(ox, oy, oz, dx, dy, dz, 0, Infinity, false);
        to = found ? hit.hitT : Infinity;
      }
    }
    if (room.hasHaze() && airlight(to) && straight) added = true;
    for (let k = 0; k < scene.lampCount; k++) {
      if (!lamp.met(k, ox, oy, oz, dx, dy, dz, to, since, straight && bounces == 0)) continue;
      const weight: f32 = (likely < 0 ? 1 : byChance(likely, lamp.likely)) * airTo(lamp.far);
      add(tr * lamp.lightR * weight, tg * lamp.lightG * weight, tb * lamp.lightB * weight, brightest, k);
      if (straight) covered = 1;
    }
    const inside = media.absorbs();
    if (inside) {
      const length = found ? to : 0;
      tint(
        exp(-load<f32>(inside) * length),
        exp(-load<f32>(inside, 4) * length),
        exp(-load<f32>(inside, 8) * length),
      );
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
      const weight: f32 = (likely < 0 || lamp.likely == 0 ? 1 : byChance(likely, lamp.likely)) * airTo(Infinity);
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
      goOn(to);
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
    emit(brightest, additive ? alpha : 1, likely, to + since);
    if (straight && !gathered.deaf) {
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
    lamp.weigh(place.px, place.py, place.pz);
    if (s.byGlass < 1) direct(which, lu, lv, (1 - s.byGlass) * (additive ? alpha : 1), additive);
    if (additive) {
      added = true;
      goOn(to);
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
        goOn(to);
        continue;
      }
      let eta: f32;
      if (thin) eta = s.ior;
      else {
        const ahead = media.indexBeyond(id, partedIor(), place.front);
        eta = place.front ? ahead / media.index() : ahead / max(media.index(), partedIor());
      }
      frosted.arrive(eta, thin, through && aboveFloor);
      if (frosted.turns(which, lu, lv, !through || load<f32>(c, ROUND) > 0))
        addLamp(tr * frosted.r, tg * frosted.g, tb * frosted.b, frosted.x, frosted.y, frosted.z);
      if (!glass.sampleGlass(eta, thin, lobe, du, dv)) return;
      tint(s.weightR, s.weightG, s.weightB);
      crossed = glass.through;
      // The colour of a body counts once: as light goes in.
      guide.goOn(s.byGlass > 0.5, crossed ? glass.off <= 0.5 : glass.off > 0.5, crossed && (thin || place.front));
      if (crossed && thin) {
        tint(s.baseR, s.baseG, s.baseB);
        goOn(to);
        continue;
      }
      if (crossed) {
        // Light goes in and out again, and is coloured once.
        tint(sqrt<f32>(s.baseR), sqrt<f32>(s.baseG), sqrt<f32>(s.baseB));
        if (place.front) enterHere(id);
        else media.leave(id);
      }
      if (--glasses < 0) last = true;
    } else {
      if (!s.sample(lobe, du, dv)) return;
      guide.goOn(s.byMirror * (1 - s.byGlass) > 0.5, s.mirrored, true);
      if (s.mirrored ? --glossy < 0 : --matt < 0) last = true;
      // Glass has its share of the paths, so what is left of them counts as it is.
      tint(s.weightR, s.weightG, s.weightB);
      likely = s.pdf * (1 - s.byGlass);
    }
    straight = false;
    if (!crossed) through = false;
    bounces++;
    gone += to;
    brightest = limit;
    since = 0;
    choice.sendOn();
    head(s.ix, s.iy, s.iz);
    if (part < s.byGlass) likely = frosted.likelySent(dy);
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
function tint(r: f32, g: f32, b: f32): void {
  tr *= r;
  tg *= g;
  tb *= b;
}
@inline
function dim(by: f32): void {
  tint(by, by, by);
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

/** On in the same direction, from just behind the face that was met so far away. */
function goOn(to: f32): void {
  gone += to;
  since += to;
  const begins = place.apart();
  ox = place.px - begins * place.gx;
  oy = place.py - begins * place.gy;
  oz = place.pz - begins * place.gz;
}

function enterHere(id: i32): void {
  const at = place.wornHere() + s.ABSORBED;
  media.enter(id, s.ior, load<f32>(at), load<f32>(at, 4), load<f32>(at, 8));
}

/** Where in its numbers, and whether above the floor, the path was before it came to where it is. */
let begun: u32 = 0;
let floorThen: bool = false;

/** Keeps the path as it was before it came to where it is. */
function keep(): void {
  parting.arrive(tr, tg, tb);
  media.keep();
  choice.keep();
  const at = parting.kept;
  store<f32>(at, ox);
  store<f32>(at, oy, 4);
  store<f32>(at, oz, 8);
  store<f32>(at, dx, 12);
  store<f32>(at, dy, 16);
  store<f32>(at, dz, 20);
  store<f32>(at, brightest, 24);
  store<f32>(at, likely, 28);
  store<f32>(at, gone, 32);
  store<i32>(at, matt, 36);
  store<i32>(at, glossy, 40);
  store<i32>(at, glasses, 44);
  store<i32>(at, bounces, 48);
  store<i32>(at, turned, 52);
  store<u32>(at, begun, 56);
  store<u8>(at, u8(straight), 60);
  store<u8>(at, u8(through), 61);
  store<u8>(at, u8(last), 62);
  store<u8>(at, u8(added), 63);
  store<u8>(at, u8(floorThen), 64);
  store<f32>(at, since, 68);
}

/** Back to where glass parts light. What the path gathers on the way there has been gathered. */
function comeBack(): void {
  gathered.heed(false);
  media.comeBack();
  choice.comeBack();
  const at = parting.kept;
  ox = load<f32>(at);
  oy = load<f32>(at, 4);
  oz = load<f32>(at, 8);
  dx = load<f32>(at, 12);
  dy = load<f32>(at, 16);
  dz = load<f32>(at, 20);
  brightest = load<f32>(at, 24);
  likely = load<f32>(at, 28);
  gone = load<f32>(at, 32);
  matt = load<i32>(at, 36);
  glossy = load<i32>(at, 40);
  glasses = load<i32>(at, 44);
  bounces = load<i32>(at, 48);
  turned = load<i32>(at, 52);
  goTo(load<u32>(at, 56));
  straight = load<u8>(at, 60) != 0;
  through = load<u8>(at, 61) != 0;
  last = load<u8>(at, 62) != 0;
  added = load<u8>(at, 63) != 0;
  aboveFloor = load<u8>(at, 64) != 0;
  since = load<f32>(at, 68);
  tr = parting.tr;
  tg = parting.tg;
  tb = parting.tb;
}

/** The index for the part of the light that this path is, as KHR_materials_dispersion has it. */
function partedIor(): f32 {
  if (s.dispersion <= 0) return s.ior;
  if (parting.channel < 0) {
    if (parting.done) {
      tr = parting.tr;
      tg = parting.tg;
      tb = parting.tb;
      gathered.heed(true);
    } else keep();
    parting.part();
    if (parting.channel != 0) tr = 0;
    if (parting.channel != 1) tg = 0;
    if (parting.channel != 2) tb = 0;
  }
  return max<f32>(1, s.ior + (s.ior - 1) * 0.025 * s.dispersion * <f32>(parting.channel - 1));
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

/** What air leaves of light that the path meets so far away. */
@inline
function airTo(far: f32): f32 {
  return room.throughAir(ox, oy, oz, dx, dy, dz, far, bounces == 0 && straight);
}

/**
 * Light that comes straight from a lamp, the sky or what glows.
 *
 * @param alone no path goes on from here that might meet the same light
 */
function direct(which: f32, u: f32, v: f32, share: f32, alone: bool): void {
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
    alone || lamp.likely == 0 || !lamp.shadows ? share : share * byLamp(lamp.likely, s.pdf * (1 - s.byGlass));
  const begins = place.apart();
  addLamp(
    tr * s.weightR * lamp.lightR * weight,
    tg * s.weightG * lamp.lightG * weight,
    tb * s.weightB * lamp.lightB * weight,
    place.px + begins * place.gx,
    place.py + begins * place.gy,
    place.pz + begins * place.gz,
  );
}

/** Light that dust turns towards where the ray begins, from one place of the ray. Whether there is some. */
function airlight(to: f32): bool {
  if (bounces > load<i32>(scene.camera, AIR) || !haze.turns(ox, oy, oz, dx, dy, dz, to)) return false;
  return addLamp(tr * haze.r, tg * haze.g, tb * haze.b, haze.x, haze.y, haze.z);
}

/**
 * Adds light of the lamp that was taken, where it reaches a place. Whether there was any to reach it. It is never
 * limited: what a lamp is asked for is no brighter than it is, and only what is met by chance may be, once in a while.
 */
function addLamp(r: f32, g: f32, b: f32, x: f32, y: f32, z: f32): bool {
  if (!(r + g + b > 0)) return false;
  const source = lamp.taken;
  if (!lamp.shadows) add(r, g, b, Infinity, source);
  else if (reaches(x, y, z)) add(r * leftR, g * leftG, b * leftB, Infinity, source);
  return true;
}
