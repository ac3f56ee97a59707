/**
 * Non-local means denoiser. Each pixel becomes a weighted mean of its neighbours: the more similar the patches around
 * both, relative to their variance (A. Buades, B. Coll & J.-M. Morel, “A non-local algorithm for image denoising”,
 * 2005; with sample variance after F. Rousselle, C. Knaus & M. Zwicker, “Adaptive rendering with non-local means
 * filtering”, 2012), and the more similar their normals, depths, albedos and coverage, the larger the weight. A first
 * pass covers the nearest pixels, a second pass, over its result, some further away. Four pixels are processed at once.
 *
 * Planes of 4-byte numbers follow each other, each `stride` wide with a margin of MARGIN on all sides: red, green, blue
 * and variance of luminance, all divided by albedo; opacity of the shadow catcher; 1 inside the image and 0 in the
 * margin; x, y, z of the normal; depth in metres; its gradient; red, green and blue of the albedo; coverage. planes.ts
 * fills them. Scratch planes follow: luminance, smoothed variance, and the result, laid out as the first five.
 */
export const MARGIN: i32 = 12;
export const VARIANCE: usize = 3;
export const COVER: usize = 4;
export const INSIDE: usize = 5;
export const NORMAL: usize = 6;
export const FAR: usize = 9;
export const SLOPE: usize = 10;
export const COLOUR: usize = 11;
export const THERE: usize = 14;
const BRIGHT: usize = 15;
const SMOOTH: usize = 16;
const OUT: usize = 17;
const PLANES: usize = 22;
/** Planes that are filtered: radiance, variance and catcher opacity. */
const FRESH: usize = 5;
/** Radiance filtered along with the same weights, red, green and blue, if there is any; then its result. */
export const CARGO: usize = 22;
const CARGO_OUT: usize = 25;
const WITH_CARGO: usize = 28;

/** Tolerances: squared patch distance in units of variance; normals; relative depth; albedo; coverage. */
const PATCH: f32 = 0.4;
const NORMALS: f32 = 60;
const DEPTH: f32 = 0.02;
const COLOURS: f32 = 60;
const COVERAGE: f32 = 480;

/** Least weight of the pixel itself. */
const LEAST: f32 = 0.3;

/** Rows processed at a time, so that their data stays in the cache; and how many rows below they may read. */
const ROWS = 8;
const ACROSS = 256;
const AHEAD = 8;

/** Variance of luminance assumed even for noise-free light. */
const LITTLE: f32 = 2e-8;

/** Adding this rounds to the nearest integer, which then stands in the lowest bits. */
const NEAREST: f32 = 12_582_912;

@inline
function exp4(x: v128): v128 {
  const y = f32x4.pmax(f32x4.mul(x, f32x4.splat(1.44269504)), f32x4.splat(-40));
  const nearest = f32x4.add(y, f32x4.splat(NEAREST));
  const f = f32x4.sub(y, f32x4.sub(nearest, f32x4.splat(NEAREST)));
  // 2ᶠ for −½…½, error 1e−4: exact enough for a weight.
  const p = f32x4.add(
    f32x4.splat(1),
    f32x4.mul(f, f32x4.add(f32x4.splat(0.6932824), f32x4.mul(f, f32x4.add(f32x4.splat(0.2422026), f32x4.mul(f, f32x4.splat(0.0550055)))))),
  );
  return i32x4.add(p, i32x4.shl(nearest, 23));
}

/**
 * Number of 4-byte values that `denoise` needs at `at` for an image; `width` is a multiple of 4.
 *
 * @param cargo whether further radiance is filtered along
 */
export function denoiseRoom(width: i32, height: i32, cargo: bool): i32 {
  const stride = width + 2 * MARGIN;
  const all = cargo ? WITH_CARGO : PLANES;
  const kinds = cargo ? SUMS + 3 : SUMS;
  return <i32>all * planeRoom(width, height) + <i32>kinds * apartFrom((ROWS + AHEAD) * stride) + 2 * (ROWS + 2) * (ACROSS + 8);
}

/** Distance between planes, in numbers. */
export function planeRoom(width: i32, height: i32): i32 {
  return apartFrom((width + 2 * MARGIN) * (height + 2 * MARGIN));
}

/**
 * Rounded up to whole pages plus three cache lines, so that the same pixel of all planes does not fall into one cache
 * set.
 */
@inline
function apartFrom(numbers: i32): i32 {
  return ((numbers + 1023) & ~1023) + 48;
}

let stride: i32 = 0;
let plane: usize = 0;
let wide: i32 = 0;
let high: i32 = 0;
let planes: usize = 0;
let behind: f32 = 0;
/** Whether further radiance is filtered along, which decides the number of planes and sums. */
let carries: bool = false;
let allPlanes: usize = PLANES;
let allSums: usize = 7;

@inline
function point(x: i32, y: i32): usize {
  return planes + (<usize>((y + MARGIN) * stride + x + MARGIN) << 2);
}

/**
 * @param at address of the planes; `width` is a multiple of 4
 * @param bright approximate luminance behind the shadow catcher
 * @param cargo whether further radiance is filtered along
 */
export function denoise(at: usize, width: i32, height: i32, bright: f32, cargo: bool): void {
  carries = cargo;
  allPlanes = cargo ? WITH_CARGO : PLANES;
  allSums = cargo ? SUMS + 3 : SUMS;
  stride = width + 2 * MARGIN;
  plane = <usize>planeRoom(width, height) << 2;
  wide = width;
  high = height;
  planes = at;
  behind = bright;
  slopes();
  round(10, 1);
  round(4, 4);
}

/** @param reach squared radius of the window, in steps */
function round(reach: i32, step: i32): void {
  prepare();
  const last = <i32>sqrt<f32>(<f32>reach);
  memory.fill(sums(), 0, allSums * each());
  for (let y = 0; y < high; y += ROWS) {
    const rows = min(ROWS, high - y);
    // Each weight counts for both pixels, so the pixels to the right and below are enough.
    for (let x = 0; x < wide; x += ACROSS)
      for (let j = 0; j <= last; j++)
        for (let i = j > 0 ? -last : 1; i <= last; i++)
          if (i * i + j * j <= reach) shift(x, min(ACROSS, wide - x), y, rows, i * step, j * step);
    end(y, rows);
    moveOn();
  }
  memory.copy(planes, planes + OUT * plane, FRESH * plane);
  if (carries) memory.copy(planes + CARGO * plane, planes + CARGO_OUT * plane, 3 * plane);
}

/** Depth gradient: the smaller of both sides, since the larger may cross an outline. */
function slopes(): void {
  border(FAR);
  const row: usize = <usize>stride << 2;
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x += 4) {
      const p = point(x, y) + FAR * plane;
      const z = v128.load(p);
      const across = f32x4.pmin(off(z, p - 4), off(z, p + 4));
      const down = f32x4.pmin(off(z, p - row), off(z, p + row));
      v128.store(point(x, y) + SLOPE * plane, f32x4.add(across, down));
    }
}

@inline
function off(z: v128, p: usize): v128 {
  return f32x4.abs(f32x4.sub(z, v128.load(p)));
}

/**
 * Prepares luminance over the background, and variance averaged over 3 × 3 pixels, as it is an estimate itself. The
 * border is repeated outwards.
 */
function prepare(): void {
  border(VARIANCE);
  const row: usize = <usize>stride << 2;
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x += 4) {
      const p = point(x, y);
      const light = f32x4.add(
        f32x4.add(f32x4.mul(v128.load(p), f32x4.splat(0.2126)), f32x4.mul(v128.load(p + plane), f32x4.splat(0.7152))),
        f32x4.mul(v128.load(p + 2 * plane), f32x4.splat(0.0722)),
      );
      const gone = f32x4.mul(v128.load(p + COVER * plane), f32x4.splat(behind));
      v128.store(p + BRIGHT * plane, f32x4.sub(light, gone));
      const v = p + VARIANCE * plane;
      const nine = f32x4.add(three(v), f32x4.add(three(v - row), three(v + row)));
      v128.store(p + SMOOTH * plane, f32x4.add(f32x4.mul(nine, f32x4.splat(1 / <f32>9)), f32x4.splat(LITTLE)));
    }
  border(BRIGHT);
  border(SMOOTH);
}

/** Four numbers and their neighbours to the left and right. */
@inline
function three(p: usize): v128 {
  return f32x4.add(v128.load(p), f32x4.add(v128.load(p - 4), v128.load(p + 4)));
}

/** Repeats the border of a plane into its margin. */
function border(which: usize): void {
  for (let y = 0; y < high; y++) {
    const p = point(0, y) + which * plane;
    const first = load<f32>(p);
    const last = load<f32>(p + (<usize>(wide - 1) << 2));
    for (let x = 1; x <= MARGIN; x++) {
      store<f32>(p - (<usize>x << 2), first);
      store<f32>(p + (<usize>(wide - 1 + x) << 2), last);
    }
  }
  const row: usize = <usize>stride << 2;
  const top = point(-MARGIN, 0) + which * plane;
  const bottom = point(-MARGIN, high - 1) + which * plane;
  for (let y: usize = 1; y <= <usize>MARGIN; y++) {
    memory.copy(top - y * row, top, row);
    memory.copy(bottom + y * row, bottom, row);
  }
}

/**
 * Running sums of the current rows and those ahead, with margins: weighted radiance, variance weighted by the squared
 * weight, weighted opacity, weights; the largest weight; and weighted extra radiance.
 */
const SUMS: usize = 7;
const WEIGHTS: usize = 5;
const LARGEST: usize = 6;
@inline
function sums(): usize {
  return planes + allPlanes * plane;
}
/** Bytes of each of them. */
@inline
function each(): usize {
  return <usize>apartFrom((ROWS + AHEAD) * stride) << 2;
}
/** Distance of two pixels, then what the variance of the first explains of it. */
@inline
function differences(): usize {
  return sums() + allSums * each();
}

/** Drops finished rows to make room for those ahead. */
function moveOn(): void {
  const done: usize = <usize>(ROWS * stride) << 2;
  const ahead: usize = <usize>(AHEAD * stride) << 2;
  for (let k: usize = 0; k < allSums; k++) {
    const s = sums() + k * each();
    memory.copy(s, s + done, ahead);
    memory.fill(s + ahead, 0, done);
  }
}

/**
 * A pixel itself gets the largest weight among its neighbours: an outlier that resembles none of them becomes like the
 * nearest match.
 */
function end(y: i32, rows: i32): void {
  const size = each();
  for (let j = 0; j < rows; j++)
    for (let x = 0; x < wide; x += 4) {
      const p = point(x, y + j);
      const s = sums() + (<usize>(j * stride + MARGIN + x) << 2);
      const own = f32x4.pmax(v128.load(s + LARGEST * size), f32x4.splat(LEAST));
      const inv = f32x4.div(f32x4.splat(1), f32x4.add(v128.load(s + WEIGHTS * size), own));
      for (let k: usize = 0; k < FRESH; k++) {
        const by = k == VARIANCE ? f32x4.mul(own, own) : own;
        const sum = f32x4.add(v128.load(s + k * size), f32x4.mul(by, v128.load(p + k * plane)));
        v128.store(p + (OUT + k) * plane, f32x4.mul(sum, k == VARIANCE ? f32x4.mul(inv, inv) : inv));
      }
      if (!carries) continue;
      for (let k: usize = 0; k < 3; k++) {
        const sum = f32x4.add(v128.load(s + (SUMS + k) * size), f32x4.mul(own, v128.load(p + (CARGO + k) * plane)));
        v128.store(p + (CARGO_OUT + k) * plane, f32x4.mul(sum, inv));
      }
    }
}

@inline
function along(p: usize, q: usize, k: usize): v128 {
  return f32x4.mul(v128.load(p + k), v128.load(q + k));
}
@inline
function apartIn(p: usize, q: usize, k: usize): v128 {
  const d = f32x4.sub(v128.load(p + k), v128.load(q + k));
  return f32x4.mul(d, d);
}
@inline
function plus(at: usize, x: v128): void {
  v128.store(at, f32x4.add(v128.load(at), x));
}

/** Adds the weighted values at `q` to the sums at `s`. */
@inline
function take(
  s: usize,
  q: usize,
  weight: v128,
  size: usize,
  green: usize,
  blue: usize,
  spread: usize,
  cover: usize,
  inside: usize,
): void {
  const w = f32x4.mul(weight, v128.load(q + inside));
  plus(s, f32x4.mul(w, v128.load(q)));
  let to = s + size;
  plus(to, f32x4.mul(w, v128.load(q + green)));
  to += size;
  plus(to, f32x4.mul(w, v128.load(q + blue)));
  to += size;
  plus(to, f32x4.mul(f32x4.mul(w, w), v128.load(q + spread)));
  to += size;
  plus(to, f32x4.mul(w, v128.load(q + cover)));
  to += size;
  plus(to, w);
  to += size;
  v128.store(to, f32x4.pmax(v128.load(to), w));
  if (!carries) return;
  for (let k: usize = 0; k < 3; k++) {
    to += size;
    plus(to, f32x4.mul(w, v128.load(q + (CARGO + k) * green)));
  }
}

/** Weight of two pixels by the distance of their features and of their patches, summed over nine pixels. */
@inline
function weightOf(unlike: v128, nine: v128): v128 {
  const patches = f32x4.mul(f32x4.pmax(nine, f32x4.splat(0)), f32x4.splat(1 / <f32>9));
  return exp4(f32x4.neg(f32x4.add(unlike, patches)));
}

/** Accumulates, for some rows, the pixels at an offset to the right and down, and vice versa. */
function shift(x0: i32, across: i32, y: i32, rows: i32, right: i32, down: i32): void {
  const q: isize = <isize>(down * stride + right) << 2;
  const width: usize = <usize>(ACROSS + 8) << 2;
  const d = differences();
  const also: usize = <usize>(ROWS + 2) * width;
  const zero = f32x4.splat(0);
  // Distances in excess of the variance, for one extra row and some extra pixels on each side.
  for (let j = -1; j <= rows; j++) {
    let p = point(x0 - 4, y + j);
    let to = d + <usize>(j + 1) * width;
    for (let x = -4; x < across + 4; x += 4, p += 16, to += 16) {
      const other = p + q;
      const v = v128.load(p + SMOOTH * plane);
      const w = v128.load(other + SMOOTH * plane);
      const apart = f32x4.sub(v128.load(p + BRIGHT * plane), v128.load(other + BRIGHT * plane));
      const inv = f32x4.div(f32x4.splat(1 / PATCH), f32x4.add(v, w));
      v128.store(to, f32x4.mul(f32x4.sub(f32x4.mul(apart, apart), f32x4.pmin(v, w)), inv));
      v128.store(to + also, f32x4.mul(v, inv));
    }
    // The box filter reads three neighbours and writes one behind them: what is read has not been overwritten.
    to = d + <usize>(j + 1) * width;
    for (let x = 0; x < across; x += 4, to += 16) {
      v128.store(to, three(to + 16));
      v128.store(to + also, three(to + also + 16));
    }
  }
  const far = f32x4.splat(<f32>max(abs(right), abs(down)));
  const atmosphere = each();
  // Addresses are computed here, once, and not for every four pixels.
  const green = plane;
  const blue = 2 * green;
  const spread = VARIANCE * green;
  const cover = COVER * green;
  const inside = INSIDE * green;
  const nx = NORMAL * green;
  const ny = nx + green;
  const nz = ny + green;
  const distance = FAR * green;
  const slopes = SLOPE * green;
  const cr = COLOUR * green;
  const cg = cr + green;
  const cb = cg + green;
  const there = THERE * green;
  for (let j = 0; j < rows; j++) {
    let p = point(x0, y + j);
    let s = sums() + (<usize>(j * stride + MARGIN + x0) << 2);
    let from = d + <usize>(j + 1) * width;
    for (let x = 0; x < across; x += 4, p += 16, s += 16, from += 16) {
      const other = p + q;
      const dot = f32x4.add(along(p, other, nx), f32x4.add(along(p, other, ny), along(p, other, nz)));
      const colours = f32x4.add(apartIn(p, other, cr), f32x4.add(apartIn(p, other, cg), apartIn(p, other, cb)));
      const a = v128.load(p + distance);
      const b = v128.load(other + distance);
      const slope = f32x4.mul(f32x4.pmax(v128.load(p + slopes), v128.load(other + slopes)), far);
      const ahead = f32x4.div(
        f32x4.abs(f32x4.sub(a, b)),
        f32x4.add(f32x4.add(slope, f32x4.mul(f32x4.pmax(a, b), f32x4.splat(DEPTH))), f32x4.splat(1e-6)),
      );
      const turned = f32x4.mul(f32x4.pmax(zero, f32x4.sub(f32x4.splat(1), dot)), f32x4.splat(NORMALS));
      const covers = f32x4.mul(apartIn(p, other, there), f32x4.splat(COVERAGE));
      const seen = f32x4.add(covers, f32x4.mul(colours, f32x4.splat(COLOURS)));
      const unlike = f32x4.add(f32x4.add(turned, ahead), seen);
      const nine = f32x4.add(v128.load(from), f32x4.add(v128.load(from - width), v128.load(from + width)));
      const first = from + also;
      const own = f32x4.add(v128.load(first), f32x4.add(v128.load(first - width), v128.load(first + width)));
      take(s, other, weightOf(unlike, f32x4.sub(nine, own)), atmosphere, green, blue, spread, cover, inside);
      // The variances of both explain 1 / PATCH of their distance, summed over nine pixels.
      const back = weightOf(unlike, f32x4.add(nine, f32x4.sub(own, f32x4.splat(9 / PATCH))));
      take(s + q, p, back, atmosphere, green, blue, spread, cover, inside);
    }
  }
}
