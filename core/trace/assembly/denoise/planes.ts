import { CARGO, COLOUR, COVER, FAR, INSIDE, MARGIN, NORMAL, planeRoom, THERE, VARIANCE } from './denoise';

/** Lays rows of an image out in the planes of denoise.ts, and reads them back. */

/** Lower bound of the albedo that radiance is divided by, so that the dark stays where it is. */
const DARKEST: f32 = 0.05;
/** Feature numbers of a pixel, besides variance: see core/develop/denoise.ts. */
const GUIDES: usize = 8;

/** Width of the planes: beyond the image the border is repeated, with weight 0. */
@inline
function wideOf(width: i32): i32 {
  return (width + 3) & ~3;
}

@inline
function rowAt(planes: usize, width: i32, y: i32): usize {
  return planes + (<usize>((y + MARGIN) * (wideOf(width) + 2 * MARGIN) + MARGIN) << 2);
}

/**
 * @param from the first of these rows; all rows come, from the top
 * @param values of those rows, `stride` (3 or 4) numbers a pixel: radiance, and catcher opacity
 * @param features of those rows, GUIDES numbers a pixel: albedo, normal, metres away, coverage
 * @param variance of those rows, of luminance
 */
export function layRows(
  planes: usize,
  width: i32,
  height: i32,
  from: i32,
  rows: i32,
  values: usize,
  stride: i32,
  features: usize,
  variance: usize,
): void {
  const plane = <usize>planeRoom(wideOf(width), height) << 2;
  if (from == 0) memory.fill(planes, 0, (THERE + 1) * plane);
  for (let y = from; y < from + rows; y++) {
    let o = rowAt(planes, width, y);
    for (let x = 0; x < width; x++) {
      const there = load<f32>(features, 28);
      const bare: f32 = 1 - there;
      const r = max(DARKEST, load<f32>(features) + bare);
      const g = max(DARKEST, load<f32>(features, 4) + bare);
      const b = max(DARKEST, load<f32>(features, 8) + bare);
      store<f32>(o, load<f32>(values) / r);
      store<f32>(o + plane, load<f32>(values, 4) / g);
      store<f32>(o + 2 * plane, load<f32>(values, 8) / b);
      const bright: f32 = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      store<f32>(o + VARIANCE * plane, load<f32>(variance) / (bright * bright));
      if (stride == 4) store<f32>(o + COVER * plane, load<f32>(values, 12) - there);
      store<f32>(o + INSIDE * plane, 1);
      const nx = load<f32>(features, 12);
      const ny = load<f32>(features, 16);
      const nz = load<f32>(features, 20);
      const length = sqrt<f32>(nx * nx + ny * ny + nz * nz);
      // Pixels without a hit are alike: no normal, and the depth of their neighbours.
      const some = length > 1e-6;
      const inv: f32 = some ? 1 / length : 0;
      store<f32>(o + NORMAL * plane, nx * inv);
      store<f32>(o + (NORMAL + 1) * plane, ny * inv);
      store<f32>(o + (NORMAL + 2) * plane, some ? nz * inv : -1);
      store<f32>(o + FAR * plane, there > 0 ? load<f32>(features, 24) / there : 0);
      store<f32>(o + COLOUR * plane, r);
      store<f32>(o + (COLOUR + 1) * plane, g);
      store<f32>(o + (COLOUR + 2) * plane, b);
      store<f32>(o + THERE * plane, there);
      o += 4;
      values += <usize>stride << 2;
      features += GUIDES << 2;
      variance += 4;
    }
    for (let x = width; x < wideOf(width); x++, o += 4)
      for (let k: usize = 0; k <= THERE; k++)
        store<f32>(o + k * plane, k == INSIDE ? 0 : load<f32>(o + k * plane - 4));
  }
}

/** Writes the denoised pixels to `values`, in the same layout. */
export function readRows(
  planes: usize,
  width: i32,
  height: i32,
  from: i32,
  rows: i32,
  values: usize,
  stride: i32,
): void {
  const plane = <usize>planeRoom(wideOf(width), height) << 2;
  for (let y = from; y < from + rows; y++) {
    let o = rowAt(planes, width, y);
    for (let x = 0; x < width; x++, o += 4, values += <usize>stride << 2) {
      const light = o + COLOUR * plane;
      store<f32>(values, max<f32>(0, load<f32>(o) * load<f32>(light)));
      store<f32>(values, max<f32>(0, load<f32>(o + plane) * load<f32>(light + plane)), 4);
      store<f32>(values, max<f32>(0, load<f32>(o + 2 * plane) * load<f32>(light + 2 * plane)), 8);
      if (stride == 3) continue;
      const all = load<f32>(o + THERE * plane) + load<f32>(o + COVER * plane);
      store<f32>(values, min<f32>(1, max<f32>(0, all)), 12);
    }
  }
}

/**
 * Lays out radiance that is filtered along; the image itself has been laid out.
 *
 * @param values of those rows, 3 numbers a pixel
 */
export function layCargo(planes: usize, width: i32, height: i32, from: i32, rows: i32, values: usize): void {
  const plane = <usize>planeRoom(wideOf(width), height) << 2;
  if (from == 0) memory.fill(planes + CARGO * plane, 0, 3 * plane);
  for (let y = from; y < from + rows; y++) {
    let o = rowAt(planes, width, y);
    for (let x = 0; x < width; x++, o += 4, values += 12)
      for (let k: usize = 0; k < 3; k++)
        store<f32>(o + (CARGO + k) * plane, load<f32>(values + 4 * k) / load<f32>(o + (COLOUR + k) * plane));
  }
}

/** Writes the radiance that was filtered along, 3 numbers a pixel, to `values`. */
export function readCargo(planes: usize, width: i32, height: i32, from: i32, rows: i32, values: usize): void {
  const plane = <usize>planeRoom(wideOf(width), height) << 2;
  for (let y = from; y < from + rows; y++) {
    let o = rowAt(planes, width, y);
    for (let x = 0; x < width; x++, o += 4, values += 12)
      for (let k: usize = 0; k < 3; k++)
        store<f32>(values + 4 * k, max<f32>(0, load<f32>(o + (CARGO + k) * plane) * load<f32>(o + (COLOUR + k) * plane)));
  }
}
