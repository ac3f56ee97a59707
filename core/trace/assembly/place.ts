import * as camera from './camera';
import * as field from './field';
import * as hit from './intersect';
import * as onFace from './on-face';
import { ownRoom } from './own';
import * as scene from './scene';
import * as s from './surface';

/**
 * A place that a ray has met: where it is, which way its face and its surface look, and the surface that is worn
 * there. What goes over a surface in patterns is asked of the host, which knows every pattern there is
 * (core/trace/worn.ts): it gets a place and changes the numbers of the surface.
 */

// eslint-disable-next-line @typescript-eslint/no-unused-vars
@external('env', 'wear')
declare function wear(patterned: i32, at: usize): void;

/**
 * What patterns are asked about, numbers of 4 bytes: place in the form, in the room and on the surface; how far it
 * faces the ray; metres from the camera; depth of crevice; of the copy its place in the repeat, its number (whole)
 * and where it stands; the same of places in form, in room and on the surface a little along x and along y; how far
 * that is in metres, 0 where nothing is raised.
 */
const asked = ownRoom(40 * 4);
const ROOM: usize = 12;
const UV: usize = 24;
const FACING: usize = 32;
const DEPTH: usize = 36;
const CREVICE: usize = 40;
const ORDER: usize = 44;
const ID: usize = 48;
const STANDS: usize = 52;
const BESIDE: usize = 64;
const BESIDE_BYTES: usize = 32;
const APART: usize = 128;

export function askedAt(): usize {
  return asked;
}

/** The surface that is worn where the path is, and where a ray to a lamp is. */
const here = ownRoom(192);
const there = ownRoom(192);

export function wornHere(): usize {
  return here;
}
export function wornThere(): usize {
  return there;
}

/** The place, the face's way and the shading normal, both towards where the ray comes from. */
export let px: f32 = 0;
export let py: f32 = 0;
export let pz: f32 = 0;
export let gx: f32 = 0;
export let gy: f32 = 0;
export let gz: f32 = 1;
export let nx: f32 = 0;
export let ny: f32 = 0;
export let nz: f32 = 1;
/** Two directions in the surface; the first the way its grooves go. */
export let tx: f32 = 1;
export let ty: f32 = 0;
export let tz: f32 = 0;
export let bx: f32 = 0;
export let by: f32 = 1;
export let bz: f32 = 0;
/** The ray comes from outside. */
export let front: bool = true;
/** Number of the surface, which tells one medium from another. */
export let medium: i32 = 0;

let wx: f32 = 0;
let wy: f32 = 0;
let wz: f32 = 0;

/** A normal of a copy's shape, in the room: by the inverse of its matrix, turned over. */
function toRoom(copy: usize, x: f32, y: f32, z: f32): void {
  wx = x;
  wy = y;
  wz = z;
  if (load<i32>(copy, scene.COPY_PLAIN) == 0) {
    wx = load<f32>(copy) * x + load<f32>(copy, 16) * y + load<f32>(copy, 32) * z;
    wy = load<f32>(copy, 4) * x + load<f32>(copy, 20) * y + load<f32>(copy, 36) * z;
    wz = load<f32>(copy, 8) * x + load<f32>(copy, 24) * y + load<f32>(copy, 40) * z;
  }
  const length = sqrt<f32>(wx * wx + wy * wy + wz * wz);
  const inv: f32 = length > 0 ? 1 / length : 0;
  wx *= inv;
  wy *= inv;
  wz *= inv;
}

/** Direction or, with `w` of 1, place in the room, as a number along an axis of the copy's form. */
@inline
function toForm(row: usize, x: f32, y: f32, z: f32, w: f32): f32 {
  return load<f32>(row) * x + load<f32>(row, 4) * y + load<f32>(row, 8) * z + load<f32>(row, 12) * w;
}

/** How far from a place a ray begins, so that it does not meet the face it comes from. */
@inline
export function apart(): f32 {
  return begins > 0 ? max(begins, 0.00002 * (1 + max(abs(px), max(abs(py), abs(pz))) + hit.hitT)) : onFace.apart();
}

/** How far a ray is when it goes on just behind what it has met straight on. */
@inline
export function behind(): f32 {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  // The same triangle is met at the same distance each time, to a few roundings.
  return field.isField(load<i32>(copy, scene.COPY_NODE)) ? hit.hitT * 1.00001 + 0.00002 : hit.hitT * 1.000001;
}

/** What has been met is an endless form: how far from it a ray begins, and the depth of the crevice; 0 otherwise. */
let begins: f32 = 0;
let deepInField: f32 = 0;

/**
 * Takes in what a ray from (ox, oy, oz) has met.
 *
 * @param gone metres that the path has come before this ray
 */
export function arrive(ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32, gone: f32): void {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  const t = hit.hitT;
  if (field.isField(load<i32>(copy, scene.COPY_NODE))) {
    px = ox + t * dx;
    py = oy + t * dy;
    pz = oz + t * dz;
  } else {
    onFace.stand(copy);
    px = onFace.x;
    py = onFace.y;
    pz = onFace.z;
  }
  normalsOf(copy, t);
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
  if (!(nx * nx + ny * ny + nz * nz > 0.5)) {
    nx = gx;
    ny = gy;
    nz = gz;
  }
  put(copy, here);
  // Its light is in no list, and met by chance alone.
  if (begins > 0) store<f32>(here, 0, s.SOUGHT);
  if (load<i32>(here, s.PATTERNED) != 0) {
    frame();
    ask(copy, dx, dy, dz, load<f32>(here, s.BUMPED) > 0 ? camera.pixelAt(gone + t) : 0);
    wear(load<i32>(here, s.PATTERNED) - 1, here);
    const sx = load<f32>(here, s.SLOPE_X);
    const sy = load<f32>(here, s.SLOPE_Y);
    if (sx != 0 || sy != 0) raise(front ? sx : -sx, front ? sy : -sy);
  }
  // A normal that looks away from the ray would make the place black: it is brought just into view.
  const away = nx * dx + ny * dy + nz * dz;
  if (!(away < -0.01)) {
    const lift = away + 0.01;
    nx -= lift * dx;
    ny -= lift * dy;
    nz -= lift * dz;
    unit();
  }
  if (!(nx * nx + ny * ny + nz * nz > 0.5)) {
    nx = gx;
    ny = gy;
    nz = gz;
  }
  s.takeSurface(here);
  frame();
  if (load<f32>(here, s.GROOVES) >= 0) align(copy);
}

/** Whether light may go straight through what was met; what patterns there make of it is not looked at. */
export function mayPass(): bool {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const kind = kindOf(mesh);
  const at = scene.surfaces + (<usize>load<i32>(copy, scene.COPY_SURFACE) + <usize>kind) * s.SURFACE;
  return load<f32>(at, s.CLEAR) > 0;
}

/** What is worn where a ray to a lamp has met something. */
export function wornOnTheWay(ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32): void {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  put(copy, there);
  if (load<i32>(there, s.PATTERNED) == 0) return;
  keep();
  px = ox + hit.hitT * dx;
  py = oy + hit.hitT * dy;
  pz = oz + hit.hitT * dz;
  normalsOf(copy, hit.hitT);
  ask(copy, dx, dy, dz, 0);
  wear(load<i32>(there, s.PATTERNED) - 1, there);
  bring();
}

/** |cosine| between what a ray has met and the ray. */
export function cosineOnTheWay(dx: f32, dy: f32, dz: f32): f32 {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  if (field.isField(load<i32>(copy, scene.COPY_NODE))) return 1;
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const corners: usize = load<u32>(mesh, 4) + <usize>hit.hitTriangle * 12;
  const normal: usize = load<u32>(mesh) + <usize>load<u32>(corners) * 12;
  toRoom(copy, load<f32>(normal), load<f32>(normal, 4), load<f32>(normal, 8));
  return min<f32>(1, abs(wx * dx + wy * dy + wz * dz));
}

/** The ways of the face and of the surface, outwards. */
function normalsOf(copy: usize, far: f32): void {
  const root = load<i32>(copy, scene.COPY_NODE);
  begins = 0;
  if (field.isField(root)) {
    field.look(
      root,
      toForm(copy, px, py, pz, 1),
      toForm(copy + 16, px, py, pz, 1),
      toForm(copy + 32, px, py, pz, 1),
      far,
    );
    begins = field.begins();
    deepInField = field.crevice();
    toRoom(copy, field.wayX(), field.wayY(), field.wayZ());
    nx = gx = wx;
    ny = gy = wy;
    nz = gz = wz;
    return;
  }
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const corners: usize = load<u32>(mesh, 4) + <usize>hit.hitTriangle * 12;
  edges(mesh, corners);
  toRoom(copy, ay * cz - az * cy, az * cx - ax * cz, ax * cy - ay * cx);
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
}

/** Two edges of a triangle, in its form. */
let ax: f32 = 0;
let ay: f32 = 0;
let az: f32 = 0;
let cx: f32 = 0;
let cy: f32 = 0;
let cz: f32 = 0;

function edges(mesh: usize, corners: usize): void {
  const points: usize = load<u32>(mesh, 12);
  const i: usize = points + <usize>load<u32>(corners) * 12;
  const j: usize = points + <usize>load<u32>(corners, 4) * 12;
  const k: usize = points + <usize>load<u32>(corners, 8) * 12;
  ax = load<f32>(j) - load<f32>(i);
  ay = load<f32>(j, 4) - load<f32>(i, 4);
  az = load<f32>(j, 8) - load<f32>(i, 8);
  cx = load<f32>(k) - load<f32>(i);
  cy = load<f32>(k, 4) - load<f32>(i, 4);
  cz = load<f32>(k, 8) - load<f32>(i, 8);
}

/** The kind of face of what was met; an endless form has but one. */
@inline
function kindOf(mesh: usize): u8 {
  const kinds: usize = load<u32>(mesh, 8);
  return kinds ? load<u8>(kinds + <usize>hit.hitTriangle) : 0;
}

/** Puts the surface of what was met somewhere, with what the copy has of its own. */
function put(copy: usize, at: usize): void {
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const kind = kindOf(mesh);
  medium = load<i32>(copy, scene.COPY_SURFACE) + <i32>kind;
  const from = scene.surfaces + <usize>medium * s.SURFACE;
  // Copying by the machine's own instruction is a call outside, which takes longer than this.
  for (let i: usize = 0; i < s.SURFACE; i += 16) v128.store(at + i, v128.load(from + i));
  // Copies' own values are of the main finish only.
  if (kind != 0) return;
  const red = load<f32>(copy, scene.COPY_BASE);
  if (red == red) {
    store<f32>(at, red);
    store<f32>(at, load<f32>(copy, scene.COPY_BASE + 4), 4);
    store<f32>(at, load<f32>(copy, scene.COPY_BASE + 8), 8);
  }
  const rough = load<f32>(copy, scene.COPY_ROUGHNESS);
  if (rough == rough) store<f32>(at, rough, s.ROUGHNESS);
  const metal = load<f32>(copy, scene.COPY_METALNESS);
  if (metal == metal) store<f32>(at, metal, s.METALNESS);
}

/** Tells the host about the place that was met. */
function ask(copy: usize, dx: f32, dy: f32, dz: f32, step: f32): void {
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const inField = begins > 0;
  const corners: usize = load<u32>(mesh, 4) + <usize>hit.hitTriangle * 12;
  const u = hit.hitU;
  const v = hit.hitV;
  const w: f32 = 1 - u - v;
  const fx = toForm(copy, px, py, pz, 1);
  const fy = toForm(copy + 16, px, py, pz, 1);
  const fz = toForm(copy + 32, px, py, pz, 1);
  store<f32>(asked, fx);
  store<f32>(asked, fy, 4);
  store<f32>(asked, fz, 8);
  store<f32>(asked, px, ROOM);
  store<f32>(asked, py, ROOM + 4);
  store<f32>(asked, pz, ROOM + 8);
  const uvs: usize = load<u32>(mesh, 16);
  const uv: usize = uvs + <usize>hit.hitTriangle * 24;
  let p: f32 = 0;
  let q: f32 = 0;
  if (uvs) {
    p = w * load<f32>(uv) + u * load<f32>(uv, 8) + v * load<f32>(uv, 16);
    q = w * load<f32>(uv, 4) + u * load<f32>(uv, 12) + v * load<f32>(uv, 20);
  }
  store<f32>(asked, p, UV);
  store<f32>(asked, q, UV + 4);
  store<f32>(asked, min<f32>(1, abs(nx * dx + ny * dy + nz * dz)), FACING);
  store<f32>(asked, camera.farFrom(px, py, pz), DEPTH);
  const crevices: usize = load<u32>(mesh, 20);
  let deep: f32 = inField ? deepInField : 0;
  if (crevices)
    deep =
      w * load<f32>(crevices + (<usize>load<u32>(corners) << 2)) +
      u * load<f32>(crevices + (<usize>load<u32>(corners, 4) << 2)) +
      v * load<f32>(crevices + (<usize>load<u32>(corners, 8) << 2));
  store<f32>(asked, deep, CREVICE);
  store<f32>(asked, load<f32>(copy, scene.COPY_ORDER), ORDER);
  store<i32>(asked, load<i32>(copy, scene.COPY_ID), ID);
  // Where it stands is where its matrix brings nothing to; what is no copy has a matrix that does nothing.
  store<f32>(asked, load<f32>(copy, scene.COPY_MATRIX + 12), STANDS);
  store<f32>(asked, load<f32>(copy, scene.COPY_MATRIX + 28), STANDS + 4);
  store<f32>(asked, load<f32>(copy, scene.COPY_MATRIX + 44), STANDS + 8);
  store<f32>(asked, step, APART);
  if (step == 0) return;
  if (!inField) edges(mesh, corners);
  beside(copy, uvs ? uv : 0, asked + BESIDE, fx, fy, fz, p, q, step * tx, step * ty, step * tz);
  beside(copy, uvs ? uv : 0, asked + BESIDE + BESIDE_BYTES, fx, fy, fz, p, q, step * bx, step * by, step * bz);
}

/** A place a little beside the one that was met, in form, in room and on the surface. */
function beside(
  copy: usize,
  uv: usize,
  to: usize,
  fx: f32,
  fy: f32,
  fz: f32,
  p: f32,
  q: f32,
  x: f32,
  y: f32,
  z: f32,
): void {
  const lx = toForm(copy, x, y, z, 0);
  const ly = toForm(copy + 16, x, y, z, 0);
  const lz = toForm(copy + 32, x, y, z, 0);
  store<f32>(to, fx + lx);
  store<f32>(to, fy + ly, 4);
  store<f32>(to, fz + lz, 8);
  store<f32>(to, px + x, 12);
  store<f32>(to, py + y, 16);
  store<f32>(to, pz + z, 20);
  if (uv) {
    // How far that is along both edges of the triangle, by least squares.
    const aa = ax * ax + ay * ay + az * az;
    const ac = ax * cx + ay * cy + az * cz;
    const cc = cx * cx + cy * cy + cz * cz;
    const la = lx * ax + ly * ay + lz * az;
    const lc = lx * cx + ly * cy + lz * cz;
    const det = aa * cc - ac * ac;
    const inv: f32 = det > 0 ? 1 / det : 0;
    const du = (la * cc - lc * ac) * inv;
    const dv = (lc * aa - la * ac) * inv;
    p += du * (load<f32>(uv, 8) - load<f32>(uv)) + dv * (load<f32>(uv, 16) - load<f32>(uv));
    q += du * (load<f32>(uv, 12) - load<f32>(uv, 4)) + dv * (load<f32>(uv, 20) - load<f32>(uv, 4));
  }
  store<f32>(to, p, 24);
  store<f32>(to, q, 28);
}

/** Tilts the normal of a surface that rises along x and y. */
function raise(sx: f32, sy: f32): void {
  nx -= sx * tx + sy * bx;
  ny -= sx * ty + sy * by;
  nz -= sx * tz + sy * bz;
  unit();
}

function unit(): void {
  const inv: f32 = 1 / sqrt<f32>(nx * nx + ny * ny + nz * nz);
  nx *= inv;
  ny *= inv;
  nz *= inv;
}

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

/** Turns the frame so that x goes along the grooves. */
function align(copy: usize): void {
  const code = <i32>load<f32>(here, s.GROOVES);
  const axis = code % 3;
  let x: f32 = axis == 0 ? 1 : 0;
  let y: f32 = axis == 1 ? 1 : 0;
  let z: f32 = axis == 2 ? 1 : 0;
  if (code < 3) {
    const fx = toForm(copy, px, py, pz, 1);
    const fy = toForm(copy + 16, px, py, pz, 1);
    const fz = toForm(copy + 32, px, py, pz, 1);
    const ux = y * fz - z * fy;
    const uy = z * fx - x * fz;
    const uz = x * fy - y * fx;
    x = ux;
    y = uy;
    z = uz;
  }
  // In the room, by the copy's matrix, and in the surface.
  const m = copy + scene.COPY_MATRIX;
  let lx = toForm(m, x, y, z, 0);
  let ly = toForm(m + 16, x, y, z, 0);
  let lz = toForm(m + 32, x, y, z, 0);
  const up = lx * nx + ly * ny + lz * nz;
  lx -= up * nx;
  ly -= up * ny;
  lz -= up * nz;
  const length = sqrt<f32>(lx * lx + ly * ly + lz * lz);
  if (!(length > 1e-12)) return;
  const inv: f32 = 1 / length;
  lx *= inv;
  ly *= inv;
  lz *= inv;
  const kx = ny * lz - nz * ly;
  const ky = nz * lx - nx * lz;
  const kz = nx * ly - ny * lx;
  const c = s.grooveCos(here);
  const e = s.grooveSin(here);
  tx = c * lx + e * kx;
  ty = c * ly + e * ky;
  tz = c * lz + e * kz;
  bx = ny * tz - nz * ty;
  by = nz * tx - nx * tz;
  bz = nx * ty - ny * tx;
}

/** The place of the path, kept while a ray to a lamp looks at other places. */
const kept = ownRoom(10 * 4);

function keep(): void {
  store<f32>(kept, px);
  store<f32>(kept, py, 4);
  store<f32>(kept, pz, 8);
  store<f32>(kept, gx, 12);
  store<f32>(kept, gy, 16);
  store<f32>(kept, gz, 20);
  store<f32>(kept, nx, 24);
  store<f32>(kept, ny, 28);
  store<f32>(kept, nz, 32);
  store<f32>(kept, begins, 36);
}

function bring(): void {
  px = load<f32>(kept);
  py = load<f32>(kept, 4);
  pz = load<f32>(kept, 8);
  gx = load<f32>(kept, 12);
  gy = load<f32>(kept, 16);
  gz = load<f32>(kept, 20);
  nx = load<f32>(kept, 24);
  ny = load<f32>(kept, 28);
  nz = load<f32>(kept, 32);
  begins = load<f32>(kept, 36);
}
