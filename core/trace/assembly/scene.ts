/** Where the parts of a scene are in memory; core/trace/memory.ts puts them there. Everything is little-endian. */

export let nodes: usize = 0;
export let packets: usize = 0;
/** Copies as the leaves of the tree over them name them. */
export let order: usize = 0;
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

/** Takes over a table of addresses and counts, in the order in which they stand here. */
export function takeScene(table: usize): void {
  nodes = load<u32>(table);
  packets = load<u32>(table, 4);
  order = load<u32>(table, 8);
  copies = load<u32>(table, 12);
  meshes = load<u32>(table, 16);
  surfaces = load<u32>(table, 20);
  lamps = load<u32>(table, 24);
  lampCount = load<i32>(table, 28);
  sky = load<u32>(table, 32);
  skyWidth = load<i32>(table, 36);
  skyHeight = load<i32>(table, 40);
  skyRows = load<u32>(table, 44);
  skyColumns = load<u32>(table, 48);
  camera = load<u32>(table, 52);
  copyCount = load<i32>(table, 56);
  clear = load<i32>(table, 60) != 0;
  room = load<u32>(table, 64);
  glows = load<u32>(table, 68);
  glowCount = load<i32>(table, 72);
  glowPower = load<f32>(table, 76);
  ribbonCount = load<i32>(table, 80);
}

/**
 * A copy: the inverse of its matrix, 12 numbers by rows; its matrix, 12 numbers by rows; the first node of
 * its shape; the shape; the first of its surfaces; then its own base colour (three), roughness and metalness,
 * not a number where it has none; its place in the repeat, and its number (whole); and
 * which ribbon it is of (whole, −1 for none), and whether it stands as its shape is, its matrix changing nothing.
 */
export const COPY: usize = 144;
export const COPY_NODE: usize = 96;
export const COPY_MESH: usize = 100;
export const COPY_SURFACE: usize = 104;
export const COPY_BASE: usize = 108;
export const COPY_ROUGHNESS: usize = 120;
export const COPY_METALNESS: usize = 124;
export const COPY_ORDER: usize = 128;
export const COPY_ID: usize = 132;
export const COPY_RIBBON: usize = 136;
export const COPY_PLAIN: usize = 140;

/**
 * A shape: addresses of its normals (3 numbers a vertex), triangles (3 vertices each), the kind of face of each, its
 * vertices (3 numbers each), places on the surface (2 numbers a corner of a triangle) and depths of crevices (one a
 * vertex); 0 for what it does not have.
 */
export const MESH: usize = 24;
