/** Where the parts of a scene are in memory; core/trace/memory.ts puts them there. Everything is little-endian. */

export let nodes: usize = 0;
export let packets: usize = 0;
export let copies: usize = 0;
export let meshes: usize = 0;
export let surfaces: usize = 0;
export let lamps: usize = 0;
export let lampCount: i32 = 0;
export let sky: usize = 0;
export let skyWidth: i32 = 0;
export let skyHeight: i32 = 0;
/** Of the sky: for each row, then for each pixel of each row, the share of light up to there. */
export let skyRows: usize = 0;
export let skyColumns: usize = 0;
export let camera: usize = 0;
export let copyCount: i32 = 0;
/** Only one shape with a tree of its own stands there: no tree over it is looked at. */
export let alone: bool = false;
/** Whether light goes straight through anything: veils, thin glass, what only adds light. */
export let clear: bool = false;
/** Air and floor, see room.ts. */
export let room: usize = 0;
/** Triangles that give light: copy, triangle and, rising to 1, the share of the light up to and with each. */
export let glows: usize = 0;
export let glowCount: i32 = 0;
/** All their light: area times brightness. */
export let glowPower: f32 = 0;
/** How many ribbons there are. */
export let ribbonCount: i32 = 0;
/** About how much light the sky brings to a place. */
export let skyPower: f32 = 0;
/** The middle of all that glows, and the square of how far it goes about it, above 0. */
export let glowX: f32 = 0;
export let glowY: f32 = 0;
export let glowZ: f32 = 0;
export let glowReach2: f32 = 1;

/** Takes over a table of addresses and counts, in the order in which they stand here. */
export function takeScene(table: usize): void {
  nodes = load<u32>(table);
  packets = load<u32>(table, 4);
  copies = load<u32>(table, 8);
  meshes = load<u32>(table, 12);
  surfaces = load<u32>(table, 16);
  lamps = load<u32>(table, 20);
  lampCount = load<i32>(table, 24);
  sky = load<u32>(table, 28);
  skyWidth = load<i32>(table, 32);
  skyHeight = load<i32>(table, 36);
  skyRows = load<u32>(table, 40);
  skyColumns = load<u32>(table, 44);
  camera = load<u32>(table, 48);
  copyCount = load<i32>(table, 52);
  clear = load<i32>(table, 56) != 0;
  room = load<u32>(table, 60);
  glows = load<u32>(table, 64);
  glowCount = load<i32>(table, 68);
  glowPower = load<f32>(table, 72);
  ribbonCount = load<i32>(table, 76);
  skyPower = load<f32>(table, 80);
  glowX = load<f32>(table, 84);
  glowY = load<f32>(table, 88);
  glowZ = load<f32>(table, 92);
  glowReach2 = load<f32>(table, 96);
  alone = copyCount == 1 && load<i32>(copies, COPY_NODE) >= 0;
}

/**
 * A copy: the inverse of its matrix, 12 numbers by rows; where the first node of its shape is; whether it stands as its
 * shape is, its matrix changing nothing; the shape; the first of its surfaces; its matrix, 12 numbers by rows; then its own
 * base colour (three), roughness and metalness, not a number where it has none; its place in the repeat, and its number
 * (whole); and which ribbon it is of (whole, −1 for none). What rays want stands first.
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
 * A shape: addresses of its normals (3 numbers a vertex), triangles (3 vertices each), the kind of face of each, its
 * vertices (3 numbers each), places on the surface (2 numbers a corner of a triangle) and depths of crevices (one a
 * vertex); 0 for what it does not have.
 */
export const MESH: usize = 24;
