import { exp } from './maths';
import * as hit from './intersect';
import * as backdrop from './backdrop';
import * as camera from './camera';
import * as lamp from './lamps';
import { beginSample, next } from './sampler';
import * as scene from './scene';
import * as s from './surface';

/**
 * Paths from the camera: where one meets a surface it is lit by one light taken at random and goes on in one direction
 * taken at random, both weighed against each other by how likely either was (E. Veach & L. Guibas, “Optimally
 * combining sampling techniques”, 1995). What it gathers is added to the pixel: light in the units of the scene, and
 * how much of it is covered.
 */
const DEPTH: usize = 76;
const BRIGHTEST: usize = 80;
const ROUND: usize = 84;
const GRAIN: usize = 88;
const EXPOSURE: usize = 92;

/** A pixel that is added up: light, how much is covered, and the sum of squares of brightness, each a number of 8 bytes. */
const PIXEL_BYTES: usize = 40;

let ox: f32 = 0;
let oy: f32 = 0;
let oz: f32 = 0;
let dx: f32 = 0;
let dy: f32 = 0;
let dz: f32 = 1;

/** The light that a path has gathered, and what of further light it lets through. */
let r: f32 = 0;
let g: f32 = 0;
let b: f32 = 0;
let tr: f32 = 1;
let tg: f32 = 1;
let tb: f32 = 1;
let covered: f32 = 0;
/** The middle of the pixel. */
let pixelX: f32 = 0;
let pixelY: f32 = 0;

/** Adds samples `first` up to, without, `end` to a rectangle of pixels; sums are in the order of the samples, whoever adds them. */
export function addSamples(x0: i32, y0: i32, width: i32, height: i32, first: i32, end: i32, sums: usize): void {
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = sums + <usize>(y * width + x) * PIXEL_BYTES;
      for (let n = first; n < end; n++) {
        beginSample(x0 + x, y0 + y, load<u32>(scene.camera, GRAIN), n);
        pixelX = <f32>(x0 + x) + 0.5;
        pixelY = <f32>(y0 + y) + 0.5;
        camera.aim(<f32>(x0 + x), <f32>(y0 + y));
        ox = camera.ox;
        oy = camera.oy;
        oz = camera.oz;
        dx = camera.dx;
        dy = camera.dy;
        dz = camera.dz;
        follow();
        // Nothing that is no number gets into a picture.
        if (!(r >= 0 && g >= 0 && b >= 0 && r < Infinity && g < Infinity && b < Infinity)) r = g = b = 0;
        store<f64>(at, load<f64>(at) + r);
        store<f64>(at, load<f64>(at, 8) + g, 8);
        store<f64>(at, load<f64>(at, 16) + b, 16);
        store<f64>(at, load<f64>(at, 24) + covered, 24);
        const bright: f64 = 0.2126 * <f64>r + 0.7152 * <f64>g + 0.0722 * <f64>b;
        store<f64>(at, load<f64>(at, 32) + bright * bright, 32);
      }
    }
}

/** Where the ray met something: the place, the face's way and the shading normal, both towards where the ray comes from. */
let px: f32 = 0;
let py: f32 = 0;
let pz: f32 = 0;
let gx: f32 = 0;
let gy: f32 = 0;
let gz: f32 = 1;
let nx: f32 = 0;
let ny: f32 = 0;
let nz: f32 = 1;
/** The ray comes from outside. */
let front: bool = true;
let surface: usize = 0;

function arrive(): void {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const t = hit.hitT;
  px = ox + t * dx;
  py = oy + t * dy;
  pz = oz + t * dz;
  const corners: usize = load<u32>(mesh, 4) + <usize>hit.hitTriangle * 12;
  const points: usize = load<u32>(mesh, 12);
  const i: usize = points + <usize>load<u32>(corners) * 12;
  const j: usize = points + <usize>load<u32>(corners, 4) * 12;
  const k: usize = points + <usize>load<u32>(corners, 8) * 12;
  const ax: f32 = load<f32>(j) - load<f32>(i);
  const ay: f32 = load<f32>(j, 4) - load<f32>(i, 4);
  const az: f32 = load<f32>(j, 8) - load<f32>(i, 8);
  const bx: f32 = load<f32>(k) - load<f32>(i);
  const by: f32 = load<f32>(k, 4) - load<f32>(i, 4);
  const bz: f32 = load<f32>(k, 8) - load<f32>(i, 8);
  toRoom(copy, ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx);
  gx = wx;
  gy = wy;
  gz = wz;
  const normals: usize = load<u32>(mesh);
  const u = hit.hitU;
  const v = hit.hitV;
  const w: f32 = 1 - u - v;
  const a: usize = normals + <usize>load<u32>(corners) * 12;
  const c: usize = normals + <usize>load<u32>(corners, 4) * 12;
  const e: usize = normals + <usize>load<u32>(corners, 8) * 12;
  toRoom(
    copy,
    w * load<f32>(a) + u * load<f32>(c) + v * load<f32>(e),
    w * load<f32>(a, 4) + u * load<f32>(c, 4) + v * load<f32>(e, 4),
    w * load<f32>(a, 8) + u * load<f32>(c, 8) + v * load<f32>(e, 8),
  );
  nx = wx;
  ny = wy;
  nz = wz;
  front = gx * dx + gy * dy + gz * dz < 0;
  if (!front) {
    gx = -gx;
    gy = -gy;
    gz = -gz;
  }
  if (nx * gx + ny * gy + nz * gz < 0) {
    nx = -nx;
    ny = -ny;
    nz = -nz;
  }
  // A normal that looks away from the ray would make the place black: it is brought just into view.
  const away = nx * dx + ny * dy + nz * dz;
  if (!(away < -0.01)) {
    const lift = away + 0.01;
    nx -= lift * dx;
    ny -= lift * dy;
    nz -= lift * dz;
    const inv: f32 = 1 / sqrt<f32>(nx * nx + ny * ny + nz * nz);
    nx *= inv;
    ny *= inv;
    nz *= inv;
  }
  if (!(nx * nx + ny * ny + nz * nz > 0.5)) {
    nx = gx;
    ny = gy;
    nz = gz;
  }
  const kind = load<u8>(<usize>load<u32>(mesh, 8) + <usize>hit.hitTriangle);
  surface = scene.surfaces + (<usize>load<i32>(copy, scene.COPY_SURFACE) + <usize>kind) * s.SURFACE;
  // Copies' own values are of the main finish only.
  const own = kind == 0;
  const cr = load<f32>(copy, scene.COPY_BASE);
  const rough = load<f32>(copy, scene.COPY_ROUGHNESS);
  const metal = load<f32>(copy, scene.COPY_METALNESS);
  const coloured = own && cr == cr;
  s.takeSurface(
    surface,
    coloured ? cr : load<f32>(surface),
    coloured ? load<f32>(copy, scene.COPY_BASE + 4) : load<f32>(surface, 4),
    coloured ? load<f32>(copy, scene.COPY_BASE + 8) : load<f32>(surface, 8),
    own && rough == rough ? rough : load<f32>(surface, s.ROUGHNESS),
    own && metal == metal ? metal : load<f32>(surface, s.METALNESS),
  );
}

let wx: f32 = 0;
let wy: f32 = 0;
let wz: f32 = 0;

/** A normal of a copy's shape, in the room: by the inverse of its matrix, turned over. */
function toRoom(copy: usize, x: f32, y: f32, z: f32): void {
  wx = load<f32>(copy) * x + load<f32>(copy, 16) * y + load<f32>(copy, 32) * z;
  wy = load<f32>(copy, 4) * x + load<f32>(copy, 20) * y + load<f32>(copy, 36) * z;
  wz = load<f32>(copy, 8) * x + load<f32>(copy, 24) * y + load<f32>(copy, 40) * z;
  const length = sqrt<f32>(wx * wx + wy * wy + wz * wz);
  const inv: f32 = length > 0 ? 1 / length : 0;
  wx *= inv;
  wy *= inv;
  wz *= inv;
}

/** How far from a place a ray begins, so that it does not meet the face it comes from. */
@inline
function apart(): f32 {
  return 0.00002 * (1 + max(abs(px), max(abs(py), abs(pz))) + hit.hitT);
}

@inline
function add(x: f32, y: f32, z: f32, brightest: f32): void {
  let k: f32 = 1;
  const most = max(x, max(y, z));
  if (most > brightest) k = brightest / most;
  r += x * k;
  g += y * k;
  b += z * k;
}

function follow(): void {
  const c = scene.camera;
  r = g = b = 0;
  tr = tg = tb = 1;
  covered = 0;
  const depth = load<i32>(c, DEPTH);
  const limit = load<f32>(c, BRIGHTEST);
  let brightest: f32 = Infinity;
  /** How likely the direction was; below 0 where no light was taken for the place it comes from. */
  let likely: f32 = -1;
  let bounces = 0;
  /** What has been passed straight through, so that the path is still what the camera sees. */
  let straight = true;
  /** Only glass has been gone through, besides. */
  let through = true;
  /** Something that only adds light has been passed. */
  let added = false;
  let inside: usize = 0;
  for (let steps = 0; steps < 96; steps++) {
    const found = hit.intersect(ox, oy, oz, dx, dy, dz, 0, Infinity, false);
    const to: f32 = found ? hit.hitT : Infinity;
    for (let k = 0; k < scene.lampCount; k++) {
      if (!lamp.met(k, ox, oy, oz, dx, dy, dz, to, straight && bounces == 0)) continue;
      const weight: f32 = likely < 0 ? 1 : likely / (likely + lamp.likely);
      add(tr * lamp.lightR * weight, tg * lamp.lightG * weight, tb * lamp.lightB * weight, brightest);
      if (straight) covered = 1;
    }
    if (inside) {
      const length = found ? to : 0;
      tr *= exp(-load<f32>(inside, s.ABSORBED) * length);
      tg *= exp(-load<f32>(inside, s.ABSORBED + 4) * length);
      tb *= exp(-load<f32>(inside, s.ABSORBED + 8) * length);
    }
    if (!found) {
      if (through && load<f32>(c, ROUND) == 0) {
        // What is seen through glass is what is behind it; with nothing before it the backdrop is added later.
        if (covered > 0) backdrop.look(pixelX, pixelY);
        if (covered > 0) add(tr * backdrop.behindR, tg * backdrop.behindG, tb * backdrop.behindB, brightest);
        else if (added) covered = min<f32>(1, load<f32>(c, EXPOSURE) * max(r, max(g, b)));
        return;
      }
      if (!scene.sky) return;
      lamp.lookAtSky(dx, dy, dz);
      const weight: f32 = likely < 0 || lamp.likely == 0 ? 1 : likely / (likely + lamp.likely);
      add(tr * lamp.lightR * weight, tg * lamp.lightG * weight, tb * lamp.lightB * weight, brightest);
      return;
    }
    arrive();
    const alpha = load<f32>(surface, s.ALPHA);
    const additive = load<f32>(surface, s.ADDITIVE) > 0;
    const veil = next();
    if (!additive && alpha < 1 && veil >= alpha) {
      goOn();
      continue;
    }
    if (!additive && straight) covered = 1;
    emit(brightest, additive ? alpha : 1);
    if (bounces >= depth && !additive) return;
    frame();
    s.takeView(-(dx * tx + dy * ty + dz * tz), -(dx * bx + dy * by + dz * bz), -(dx * nx + dy * ny + dz * nz));
    const which = next();
    const lu = next();
    const lv = next();
    const glass = next();
    const lobe = next();
    const du = next();
    const dv = next();
    if (s.glass < 1) direct(which, lu, lv, (1 - s.glass) * (additive ? alpha : 1), brightest);
    if (additive) {
      added = true;
      goOn();
      continue;
    }
    const begins = apart();
    if (glass < s.glass) {
      const thin = load<f32>(surface, s.THICKNESS) <= 0;
      if (thin) {
        const f = s.fresnel(-(dx * nx + dy * ny + dz * nz), s.ior);
        // Both sides of a wall mirror, and each other's mirror image.
        if (lobe >= (2 * f) / (1 + f)) {
          tr *= s.baseR;
          tg *= s.baseG;
          tb *= s.baseB;
          goOn();
          continue;
        }
        // The mirror: whatever is thrown, it is not gone through.
        s.sampleGlass(s.ior, 0, du, dv);
        tr *= s.weightR;
        tg *= s.weightG;
        tb *= s.weightB;
      } else {
        if (!s.sampleGlass(front ? s.ior : 1 / s.ior, lobe, du, dv)) return;
        tr *= s.weightR;
        tg *= s.weightG;
        tb *= s.weightB;
        if (s.through) {
          // Light goes in and out again, and is coloured once.
          tr *= sqrt<f32>(s.baseR);
          tg *= sqrt<f32>(s.baseG);
          tb *= sqrt<f32>(s.baseB);
          inside = front ? surface : 0;
        }
      }
      likely = -1;
    } else {
      if (!s.sample(lobe, du, dv)) return;
      // Glass has its share of the paths, so what is left of them counts as it is.
      tr *= s.weightR;
      tg *= s.weightG;
      tb *= s.weightB;
      likely = s.pdf * (1 - s.glass);
    }
    straight = false;
    if (!(glass < s.glass && s.through)) through = false;
    bounces++;
    brightest = limit;
    const ix = s.ix;
    const iy = s.iy;
    const iz = s.iz;
    dx = ix * tx + iy * bx + iz * nx;
    dy = ix * ty + iy * by + iz * ny;
    dz = ix * tz + iy * bz + iz * nz;
    const inv: f32 = 1 / sqrt<f32>(dx * dx + dy * dy + dz * dz);
    dx *= inv;
    dy *= inv;
    dz *= inv;
    const out = gx * dx + gy * dy + gz * dz;
    // Off a face only to where it looks, through it only to where it does not.
    if (glass < s.glass && s.through ? out >= 0 : out <= 0) return;
    const side: f32 = out < 0 ? -begins : begins;
    ox = px + side * gx;
    oy = py + side * gy;
    oz = pz + side * gz;
    // Paths that bring little end early, and those that go on count for them.
    if (bounces > 3) {
      const most = max(tr, max(tg, tb));
      const survives = min<f32>(0.98, most);
      if (next() >= survives) return;
      const more: f32 = 1 / survives;
      tr *= more;
      tg *= more;
      tb *= more;
    }
  }
}

/** On in the same direction, from just behind the face. */
function goOn(): void {
  const begins = apart();
  ox = px - begins * gx;
  oy = py - begins * gy;
  oz = pz - begins * gz;
}

function emit(brightest: f32, share: f32): void {
  const tinted = load<f32>(surface, s.TINTED);
  let er = load<f32>(surface, s.EMISSION);
  let eg = load<f32>(surface, s.EMISSION + 4);
  let eb = load<f32>(surface, s.EMISSION + 8);
  if (tinted > 0) {
    er *= s.baseR;
    eg *= s.baseG;
    eb *= s.baseB;
  }
  if (er + eg + eb > 0) add(share * tr * er, share * tg * eg, share * tb * eb, brightest);
}

let tx: f32 = 1;
let ty: f32 = 0;
let tz: f32 = 0;
let bx: f32 = 0;
let by: f32 = 1;
let bz: f32 = 0;

/** Two directions in the surface (T. Duff et al., 2017). */
function frame(): void {
  const sign: f32 = nz < 0 ? -1 : 1;
  const p: f32 = -1 / (sign + nz);
  const q = nx * ny * p;
  tx = 1 + sign * nx * nx * p;
  ty = sign * q;
  tz = -sign * nx;
  bx = q;
  by = sign + ny * ny * p;
  bz = -ny;
}

/** Light that comes straight from a lamp or the sky. */
function direct(which: f32, u: f32, v: f32, share: f32, brightest: f32): void {
  if (!lamp.take(which, px, py, pz, u, v)) return;
  const out = lamp.lx * gx + lamp.ly * gy + lamp.lz * gz;
  if (out <= 0) return;
  s.evaluate(
    lamp.lx * tx + lamp.ly * ty + lamp.lz * tz,
    lamp.lx * bx + lamp.ly * by + lamp.lz * bz,
    lamp.lx * nx + lamp.ly * ny + lamp.lz * nz,
  );
  if (s.pdf == 0) return;
  // What no ray meets by chance, or not to be weighed since it throws no shadow, counts in full.
  const weight: f32 =
    lamp.likely == 0 || !lamp.shadows ? share : (share * lamp.likely) / (lamp.likely + s.pdf * (1 - s.glass));
  const er = tr * s.weightR * lamp.lightR * weight;
  const eg = tg * s.weightG * lamp.lightG * weight;
  const eb = tb * s.weightB * lamp.lightB * weight;
  if (!(er + eg + eb > 0)) return;
  if (lamp.shadows) {
    const t = hit.hitT;
    const copy = hit.hitCopy;
    const there = reaches();
    hit.restore(t, copy);
    if (!there) return;
    add(er * leftR, eg * leftG, eb * leftB, brightest);
    return;
  }
  add(er, eg, eb, brightest);
}

/** What is left of light on its way from a lamp. */
let leftR: f32 = 1;
let leftG: f32 = 1;
let leftB: f32 = 1;

/** Whether light from the lamp that was taken reaches the place; what veils and thin glass leave of it is told beside. */
function reaches(): bool {
  const begins = apart();
  const qx = px + begins * gx;
  const qy = py + begins * gy;
  const qz = pz + begins * gz;
  const to: f32 = lamp.far == Infinity ? lamp.far : lamp.far * 0.9999 - begins;
  leftR = leftG = leftB = 1;
  if (!scene.clear) return !hit.intersect(qx, qy, qz, lamp.lx, lamp.ly, lamp.lz, 0, to, true);
  let from: f32 = 0;
  for (let i = 0; i < 64; i++) {
    if (!hit.intersect(qx, qy, qz, lamp.lx, lamp.ly, lamp.lz, from, to, false)) return true;
    if (!passes()) return false;
    from = hit.hitT * 1.00001 + 0.00002;
  }
  return false;
}

/** Takes off what a surface that was met keeps of light that goes straight through; false where that is all. */
function passes(): bool {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const kind = load<u8>(<usize>load<u32>(mesh, 8) + <usize>hit.hitTriangle);
  const at = scene.surfaces + (<usize>load<i32>(copy, scene.COPY_SURFACE) + <usize>kind) * s.SURFACE;
  if (load<f32>(at, s.ADDITIVE) > 0) return true;
  const alpha = load<f32>(at, s.ALPHA);
  const thin = load<f32>(at, s.THICKNESS) <= 0;
  const glass: f32 = thin ? (1 - load<f32>(at, s.METALNESS)) * load<f32>(at, s.TRANSMISSION) : 0;
  if (alpha >= 1 && glass <= 0) return false;
  let through: f32 = 0;
  if (glass > 0) {
    const corners: usize = load<u32>(mesh, 4) + <usize>hit.hitTriangle * 12;
    const normal: usize = load<u32>(mesh) + <usize>load<u32>(corners) * 12;
    toRoom(copy, load<f32>(normal), load<f32>(normal, 4), load<f32>(normal, 8));
    const f = s.fresnel(min<f32>(1, abs(wx * lamp.lx + wy * lamp.ly + wz * lamp.lz)), load<f32>(at, s.IOR));
    through = alpha * glass * ((1 - f) / (1 + f));
  }
  const open: f32 = 1 - alpha;
  leftR *= open + through * load<f32>(at);
  leftG *= open + through * load<f32>(at, 4);
  leftB *= open + through * load<f32>(at, 8);
  return leftR + leftG + leftB > 0;
}
