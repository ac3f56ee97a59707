import { cosTurns, PI, sinTurns } from '../base/maths';

/**
 * GGX microfacets with roughness alpha `ax` along x and `ay` along y. Directions are unit vectors in a frame whose z is
 * the macroscopic normal.
 */

/** Samples a visible normal (E. Heitz, “Sampling the GGX Distribution of Visible Normals”, 2018). */
export let hx: f32 = 0;
export let hy: f32 = 0;
export let hz: f32 = 1;

export function sampleVisibleNormal(ax: f32, ay: f32, ox: f32, oy: f32, oz: f32, u: f32, v: f32): void {
  let x: f32 = ax * ox;
  let y: f32 = ay * oy;
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
  const nx: f32 = ax * (p1 * t1x + p2 * t2x + p3 * x);
  const ny: f32 = ay * (p1 * t1y + p2 * t2y + p3 * y);
  const nz: f32 = max<f32>(1e-6, p2 * t2z + p3 * z);
  const length: f32 = 1 / sqrt<f32>(nx * nx + ny * ny + nz * nz);
  hx = nx * length;
  hy = ny * length;
  hz = nz * length;
}

/** Smith's Λ: how strongly microfacets mask each other. */
@inline
export function lambda(ax: f32, ay: f32, x: f32, y: f32, z: f32): f32 {
  const wide = ax * ax * x * x + ay * ay * y * y;
  return 0.5 * (sqrt<f32>(1 + wide / max<f32>(z * z, 1e-9)) - 1);
}

/** Distribution of normals D (B. Walter et al., 2007). */
@inline
export function distribution(ax: f32, ay: f32, x: f32, y: f32, z: f32): f32 {
  const p = x / ax;
  const q = y / ay;
  const d = p * p + q * q + z * z;
  return 1 / (PI * ax * ay * d * d);
}
