/** Addresses of the parts of a scene; core/trace/memory/memory.ts lays them out. Everything is little-endian. */

export let nodes: usize = 0;
export let packets: usize = 0;
export let copies: usize = 0;
export let meshes: usize = 0;
export let surfaces: usize = 0;
export let lamps: usize = 0;
export let lampCount: i32 = 0;
export let environment: usize = 0;
export let environmentWidth: i32 = 0;
export let environmentHeight: i32 = 0;
/** Of the environment map: cumulative luminance of rows, and for each row of its texels, 0…1. */
export let environmentRows: usize = 0;
export let environmentColumns: usize = 0;
export let camera: usize = 0;
export let copyCount: i32 = 0;
/** The scene has a single instance with a tree: the top-level tree is skipped. */
export let singleMesh: bool = false;
/** Whether light may pass straight through anything: partial opacity, thin glass, additive surfaces. */
export let hasTransparency: bool = false;
/** Air and floor, see atmosphere.ts. */
export let atmosphere: usize = 0;
/** Emissive triangles: instance, triangle and the cumulative share of the power, rising to 1. */
export let emissiveTriangles: usize = 0;
export let emissiveCount: i32 = 0;
/** Power of all: area times luminance. */
export let emissivePower: f32 = 0;
/** Number of ribbons. */
export let ribbonCount: i32 = 0;
/** Estimate of the irradiance from the environment. */
export let environmentPower: f32 = 0;
/** Centre of all emissive triangles, and the square of their spread around it, above 0. */
export let emissiveX: f32 = 0;
export let emissiveY: f32 = 0;
export let emissiveZ: f32 = 0;
export let emissiveRadius2: f32 = 1;

/** Loads a table of addresses and counts, in the order in which they stand here. */
export function loadScene(table: usize): void {
  nodes = load<u32>(table);
  packets = load<u32>(table, 4);
  copies = load<u32>(table, 8);
  meshes = load<u32>(table, 12);
  surfaces = load<u32>(table, 16);
  lamps = load<u32>(table, 20);
  lampCount = load<i32>(table, 24);
  environment = load<u32>(table, 28);
  environmentWidth = load<i32>(table, 32);
  environmentHeight = load<i32>(table, 36);
  environmentRows = load<u32>(table, 40);
  environmentColumns = load<u32>(table, 44);
  camera = load<u32>(table, 48);
  copyCount = load<i32>(table, 52);
  hasTransparency = load<i32>(table, 56) != 0;
  atmosphere = load<u32>(table, 60);
  emissiveTriangles = load<u32>(table, 64);
  emissiveCount = load<i32>(table, 68);
  emissivePower = load<f32>(table, 72);
  ribbonCount = load<i32>(table, 76);
  environmentPower = load<f32>(table, 80);
  emissiveX = load<f32>(table, 84);
  emissiveY = load<f32>(table, 88);
  emissiveZ = load<f32>(table, 92);
  emissiveRadius2 = load<f32>(table, 96);
  singleMesh = copyCount == 1 && load<i32>(copies, COPY_NODE) >= 0;
}

/**
 * An instance: inverse matrix, 12 numbers by rows; root of its shape's tree; whether its matrix is the identity; the
 * shape; the first of its surfaces; its matrix, 12 numbers by rows; then overrides of base colour (three), roughness
 * and metalness, NaN for none; its order in the repeat, and its number (integer); and its ribbon (integer, −1 for
 * none). What traversal reads comes first.
 */
export const COPY: usize = 144;
export const COPY_NODE: usize = 48;
export const COPY_PLAIN: usize = 52;
export const COPY_MESH: usize = 56;
export const COPY_SURFACE: usize = 60;
export const COPY_MATRIX: usize = 64;
export const COPY_BASE: usize = 112;
export const COPY_ROUGHNESS: usize = 124;
export const COPY_METALNESS: usize = 128;
export const COPY_ORDER: usize = 132;
export const COPY_ID: usize = 136;
export const COPY_RIBBON: usize = 140;

/**
 * A shape: addresses of its normals (3 numbers per vertex), triangles (3 vertices each), face kinds, vertices (3
 * numbers each), uv (2 numbers per corner) and ambient occlusion (one per vertex); 0 for what it does not have.
 */
export const MESH: usize = 24;
