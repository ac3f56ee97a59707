import * as camera from './camera';
import * as field from '../trees/field';
import * as hit from '../trees/intersect';
import * as onFace from './hit-point';
import { allocate } from '../base/per-thread';
import * as scene from '../base/scene';
import { here, loadHitSurface, there } from './hit-surface';
import * as s from '../surfaces/surface';

/**
 * The shading point: position, geometric and shading normals, and the material there. Patterns are evaluated by the
 * host, which knows every kind (core/trace/scene/pattern-evaluator.ts): it reads the query and changes the numbers of the
 * surface.
 */

// eslint-disable-next-line @typescript-eslint/no-unused-vars
@external('env', 'evaluatePatterns')
declare function evaluatePatterns(patternIndex: i32, at: usize): void;

/**
 * The query for patterns, numbers of 4 bytes: position in object space, in world space and uv; cosine to the ray;
 * distance from the camera; ambient occlusion; of the copy its order in the repeat, its number (integer) and its
 * origin; then positions offset along x and along y, in object space, world space and uv; and that offset in metres, 0
 * if there is no bump.
 */
const query = allocate(40 * 4);
const WORLD: usize = 12;
const UV: usize = 24;
const FACING: usize = 32;
const DEPTH: usize = 36;
const OCCLUSION: usize = 40;
const ORDER: usize = 44;
const ID: usize = 48;
const ORIGIN: usize = 52;
const DIFFERENTIALS: usize = 64;
const DIFFERENTIAL_BYTES: usize = 32;
const DIFFERENTIAL_STEP: usize = 128;

export function queryAddress(): usize {
  return query;
}

/** Position, geometric normal and shading normal, both facing the ray. */
export let px: f32 = 0;
export let py: f32 = 0;
export let pz: f32 = 0;
export let gx: f32 = 0;
export let gy: f32 = 0;
export let gz: f32 = 1;
export let nx: f32 = 0;
export let ny: f32 = 0;
export let nz: f32 = 1;
/** Tangent and bitangent; the tangent follows the brushed direction. */
export let tx: f32 = 1;
export let ty: f32 = 0;
export let tz: f32 = 0;
export let bx: f32 = 0;
export let by: f32 = 1;
export let bz: f32 = 0;
/** The ray comes from outside. */
export let front: bool = true;
/** Index of the surface, which identifies the medium; shadow rays leave it alone. */
export let medium: i32 = 0;

let wx: f32 = 0;
let wy: f32 = 0;
let wz: f32 = 0;

/** Normal from object space to world space: by the transposed inverse of the matrix. */
function normalToWorld(copy: usize, x: f32, y: f32, z: f32): void {
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

/** Direction, or with `w` of 1 position, from world to object space, along one axis. */
@inline
function toObject(row: usize, x: f32, y: f32, z: f32, w: f32): f32 {
  return load<f32>(row) * x + load<f32>(row, 4) * y + load<f32>(row, 8) * z + load<f32>(row, 12) * w;
}

/** Offset at which a ray starts, so that it does not hit the face it leaves. */
@inline
export function offset(): f32 {
  return fieldOffset > 0 ? max(fieldOffset, 0.00002 * (1 + max(abs(px), max(abs(py), abs(pz))) + hit.hitT)) : onFace.offset();
}

/** Distance at which a ray continues just behind a hit. */
@inline
export function behind(): f32 {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  // The same triangle is hit at the same distance each time, within a few roundings.
  return field.isField(load<i32>(copy, scene.COPY_NODE)) ? hit.hitT * 1.00001 + 0.00002 : hit.hitT * 1.000001;
}

/** The hit is a distance field: offset for rays that start there, and ambient occlusion; 0 otherwise. */
let fieldOffset: f32 = 0;
let fieldOcclusion: f32 = 0;

/**
 * Sets up the shading point at a hit of a ray from (ox, oy, oz).
 *
 * @param travelled metres that the path has come before this ray
 */
export function setUp(ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32, travelled: f32): void {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  const t = hit.hitT;
  if (field.isField(load<i32>(copy, scene.COPY_NODE))) {
    px = ox + t * dx;
    py = oy + t * dy;
    pz = oz + t * dz;
  } else {
    onFace.locate(copy);
    px = onFace.x;
    py = onFace.y;
    pz = onFace.z;
  }
  computeNormals(copy, t);
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
  medium = loadHitSurface(copy, here);
  // A distance field is in no light list: only BSDF sampling finds its light.
  if (fieldOffset > 0) store<f32>(here, 0, s.IN_LIGHT_LIST);
  if (load<i32>(here, s.PATTERN) != 0) {
    buildFrame();
    queryPatterns(copy, dx, dy, dz, load<f32>(here, s.BUMPED) > 0 ? camera.pixelSize(travelled + t) : 0);
    evaluatePatterns(load<i32>(here, s.PATTERN) - 1, here);
    const sx = load<f32>(here, s.SLOPE_X);
    const sy = load<f32>(here, s.SLOPE_Y);
    if (sx != 0 || sy != 0) bump(front ? sx : -sx, front ? sy : -sy);
  }
  // A shading normal that faces away from the ray would be black: it is bent just into view.
  const away = nx * dx + ny * dy + nz * dz;
  if (!(away < -0.01)) {
    const lift = away + 0.01;
    nx -= lift * dx;
    ny -= lift * dy;
    nz -= lift * dz;
    normalise();
  }
  if (!(nx * nx + ny * ny + nz * nz > 0.5)) {
    nx = gx;
    ny = gy;
    nz = gz;
  }
  s.loadSurface(here);
  buildFrame();
  if (load<f32>(here, s.GROOVES) >= 0) alignFrame(copy);
}

/** Sets up the material at the hit of a shadow ray. */
export function setUpShadowHit(ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32): void {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  loadHitSurface(copy, there);
  if (load<i32>(there, s.PATTERN) == 0) return;
  save();
  px = ox + hit.hitT * dx;
  py = oy + hit.hitT * dy;
  pz = oz + hit.hitT * dz;
  computeNormals(copy, hit.hitT);
  queryPatterns(copy, dx, dy, dz, 0);
  evaluatePatterns(load<i32>(there, s.PATTERN) - 1, there);
  restore();
}

/** |cosine| between a hit and the ray. */
export function shadowHitCosine(dx: f32, dy: f32, dz: f32): f32 {
  const copy = scene.copies + <usize>hit.hitCopy * scene.COPY;
  if (field.isField(load<i32>(copy, scene.COPY_NODE))) return 1;
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const corners: usize = load<u32>(mesh, 4) + <usize>hit.hitTriangle * 12;
  const normal: usize = load<u32>(mesh) + <usize>load<u32>(corners) * 12;
  normalToWorld(copy, load<f32>(normal), load<f32>(normal, 4), load<f32>(normal, 8));
  return min<f32>(1, abs(wx * dx + wy * dy + wz * dz));
}

/** Geometric and shading normals, outward. */
function computeNormals(copy: usize, far: f32): void {
  const root = load<i32>(copy, scene.COPY_NODE);
  fieldOffset = 0;
  if (field.isField(root)) {
    field.evaluate(
      root,
      toObject(copy, px, py, pz, 1),
      toObject(copy + 16, px, py, pz, 1),
      toObject(copy + 32, px, py, pz, 1),
      far,
    );
    fieldOffset = field.offset();
    fieldOcclusion = field.occlusion();
    normalToWorld(copy, field.normalX(), field.normalY(), field.normalZ());
    nx = gx = wx;
    ny = gy = wy;
    nz = gz = wz;
    return;
  }
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const corners: usize = load<u32>(mesh, 4) + <usize>hit.hitTriangle * 12;
  loadEdges(mesh, corners);
  normalToWorld(copy, ay * cz - az * cy, az * cx - ax * cz, ax * cy - ay * cx);
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
  normalToWorld(
    copy,
    w * load<f32>(a) + u * load<f32>(c) + v * load<f32>(e),
    w * load<f32>(a, 4) + u * load<f32>(c, 4) + v * load<f32>(e, 4),
    w * load<f32>(a, 8) + u * load<f32>(c, 8) + v * load<f32>(e, 8),
  );
  nx = wx;
  ny = wy;
  nz = wz;
}

/** Two edges of a triangle, in object space. */
let ax: f32 = 0;
let ay: f32 = 0;
let az: f32 = 0;
let cx: f32 = 0;
let cy: f32 = 0;
let cz: f32 = 0;

function loadEdges(mesh: usize, corners: usize): void {
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

/** Fills in the query for patterns. */
function queryPatterns(copy: usize, dx: f32, dy: f32, dz: f32, step: f32): void {
  const mesh = scene.meshes + <usize>load<i32>(copy, scene.COPY_MESH) * scene.MESH;
  const inField = fieldOffset > 0;
  const corners: usize = load<u32>(mesh, 4) + <usize>hit.hitTriangle * 12;
  const u = hit.hitU;
  const v = hit.hitV;
  const w: f32 = 1 - u - v;
  const fx = toObject(copy, px, py, pz, 1);
  const fy = toObject(copy + 16, px, py, pz, 1);
  const fz = toObject(copy + 32, px, py, pz, 1);
  store<f32>(query, fx);
  store<f32>(query, fy, 4);
  store<f32>(query, fz, 8);
  store<f32>(query, px, WORLD);
  store<f32>(query, py, WORLD + 4);
  store<f32>(query, pz, WORLD + 8);
  const uvs: usize = load<u32>(mesh, 16);
  const uv: usize = uvs + <usize>hit.hitTriangle * 24;
  let p: f32 = 0;
  let q: f32 = 0;
  if (uvs) {
    p = w * load<f32>(uv) + u * load<f32>(uv, 8) + v * load<f32>(uv, 16);
    q = w * load<f32>(uv, 4) + u * load<f32>(uv, 12) + v * load<f32>(uv, 20);
  }
  store<f32>(query, p, UV);
  store<f32>(query, q, UV + 4);
  store<f32>(query, min<f32>(1, abs(nx * dx + ny * dy + nz * dz)), FACING);
  store<f32>(query, camera.distanceTo(px, py, pz), DEPTH);
  const occlusion: usize = load<u32>(mesh, 20);
  let deep: f32 = inField ? fieldOcclusion : 0;
  if (occlusion)
    deep =
      w * load<f32>(occlusion + (<usize>load<u32>(corners) << 2)) +
      u * load<f32>(occlusion + (<usize>load<u32>(corners, 4) << 2)) +
      v * load<f32>(occlusion + (<usize>load<u32>(corners, 8) << 2));
  store<f32>(query, deep, OCCLUSION);
  store<f32>(query, load<f32>(copy, scene.COPY_ORDER), ORDER);
  store<i32>(query, load<i32>(copy, scene.COPY_ID), ID);
  // Its origin is where its matrix takes (0, 0, 0); a shape that is no copy has the identity.
  store<f32>(query, load<f32>(copy, scene.COPY_MATRIX + 12), ORIGIN);
  store<f32>(query, load<f32>(copy, scene.COPY_MATRIX + 28), ORIGIN + 4);
  store<f32>(query, load<f32>(copy, scene.COPY_MATRIX + 44), ORIGIN + 8);
  store<f32>(query, step, DIFFERENTIAL_STEP);
  if (step == 0) return;
  if (!inField) loadEdges(mesh, corners);
  putDifferential(copy, uvs ? uv : 0, query + DIFFERENTIALS, fx, fy, fz, p, q, step * tx, step * ty, step * tz);
  putDifferential(copy, uvs ? uv : 0, query + DIFFERENTIALS + DIFFERENTIAL_BYTES, fx, fy, fz, p, q, step * bx, step * by, step * bz);
}

/** Writes a position offset from the shading point, in object space, world space and uv. */
function putDifferential(
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
  const lx = toObject(copy, x, y, z, 0);
  const ly = toObject(copy + 16, x, y, z, 0);
  const lz = toObject(copy + 32, x, y, z, 0);
  store<f32>(to, fx + lx);
  store<f32>(to, fy + ly, 4);
  store<f32>(to, fz + lz, 8);
  store<f32>(to, px + x, 12);
  store<f32>(to, py + y, 16);
  store<f32>(to, pz + z, 20);
  if (uv) {
    // Offset along both edges of the triangle, by least squares.
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

/** Tilts the shading normal by the slopes of a bump along x and y. */
function bump(sx: f32, sy: f32): void {
  nx -= sx * tx + sy * bx;
  ny -= sx * ty + sy * by;
  nz -= sx * tz + sy * bz;
  normalise();
}

function normalise(): void {
  const inv: f32 = 1 / sqrt<f32>(nx * nx + ny * ny + nz * nz);
  nx *= inv;
  ny *= inv;
  nz *= inv;
}

/** Tangent and bitangent (T. Duff et al., 2017). */
function buildFrame(): void {
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

/** Rotates the frame so that the tangent follows the grooves. */
function alignFrame(copy: usize): void {
  const code = <i32>load<f32>(here, s.GROOVES);
  const axis = code % 3;
  let x: f32 = axis == 0 ? 1 : 0;
  let y: f32 = axis == 1 ? 1 : 0;
  let z: f32 = axis == 2 ? 1 : 0;
  if (code < 3) {
    const fx = toObject(copy, px, py, pz, 1);
    const fy = toObject(copy + 16, px, py, pz, 1);
    const fz = toObject(copy + 32, px, py, pz, 1);
    const ux = y * fz - z * fy;
    const uy = z * fx - x * fz;
    const uz = x * fy - y * fx;
    x = ux;
    y = uy;
    z = uz;
  }
  // In world space, by the instance's matrix, and into the surface.
  const m = copy + scene.COPY_MATRIX;
  let lx = toObject(m, x, y, z, 0);
  let ly = toObject(m + 16, x, y, z, 0);
  let lz = toObject(m + 32, x, y, z, 0);
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

/** The shading point of the path, saved while a shadow ray evaluates others. */
const saved = allocate(10 * 4);

function save(): void {
  store<f32>(saved, px);
  store<f32>(saved, py, 4);
  store<f32>(saved, pz, 8);
  store<f32>(saved, gx, 12);
  store<f32>(saved, gy, 16);
  store<f32>(saved, gz, 20);
  store<f32>(saved, nx, 24);
  store<f32>(saved, ny, 28);
  store<f32>(saved, nz, 32);
  store<f32>(saved, fieldOffset, 36);
}

function restore(): void {
  px = load<f32>(saved);
  py = load<f32>(saved, 4);
  pz = load<f32>(saved, 8);
  gx = load<f32>(saved, 12);
  gy = load<f32>(saved, 16);
  gz = load<f32>(saved, 20);
  nx = load<f32>(saved, 24);
  ny = load<f32>(saved, 28);
  nz = load<f32>(saved, 32);
  fieldOffset = load<f32>(saved, 36);
}
