/**
 * Takes grain out of a picture by what its pixels have in common: means of pixels round about, in which one counts the
 * more, the more the patch about it is like that about the one in the middle, against how uncertain both are (A.
 * Buades, B. Coll & J.-M. Morel, “A non-local algorithm for image denoising”, 2005; with the variance of samples after
 * F. Rousselle, C. Knaus & M. Zwicker, “Adaptive rendering with non-local means filtering”, 2012), and the more alike
 * they are in the way they look, in how far they are and in colour. First of those nearest, then, of what came of it, of
 * some further away. Four pixels at once.
 *
 * Planes of numbers of 4 bytes, one after the other, each `stride` wide with a margin of MARGIN all round: red, green,
 * blue and variance of brightness, of light without the colour of what it falls on; how much of what is behind the
 * floor's shadow covers; 1 within the picture and 0 in the margin; x, y, z of the normal; metres away; how fast those
 * change; red, green and blue of the colour it falls on; how much of the pixel something stands in. planes.ts fills them.
 * Then planes to work in: brightness, smoothed variance, and what comes of it, as the first five.
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
/** Planes that come out anew: light, variance and cover. */
const FRESH: usize = 5;
/** Light that goes along with the same weights, red, green and blue, where there is some; then what comes of it. */
export const CARGO: usize = 22;
const CARGO_OUT: usize = 25;
const WITH_CARGO: usize = 28;

/** How much patches may differ, squared, in their variance; normals; depth, of itself; colours. */
const PATCH: f32 = 0.4;
const NORMALS: f32 = 60;
const DEPTH: f32 = 0.02;
const COLOURS: f32 = 60;

/** What a pixel counts by itself at least. */
const LEAST: f32 = 0.3;

/** Rows that are worked at a time, so that what they need stays near; and rows further down that they may look at. */
const ROWS = 8;
const ACROSS = 256;
const AHEAD = 8;

/** Variance of brightness that even light without grain is taken to have. */
const LITTLE: f32 = 2e-8;

/** To the nearest whole number, which stands in the lowest bits then. */
const NEAREST: f32 = 12_582_912;

@inline
function exp4(x: v128): v128 {
  const y = f32x4.pmax(f32x4.mul(x, f32x4.splat(1.44269504)), f32x4.splat(-40));
  const nearest = f32x4.add(y, f32x4.splat(NEAREST));
  const f = f32x4.sub(y, f32x4.sub(nearest, f32x4.splat(NEAREST)));
  // 2ᶠ for −½…½, error 1e−4: a weight need not be righter.
  const p = f32x4.add(
    f32x4.splat(1),
    f32x4.mul(f, f32x4.add(f32x4.splat(0.6932824), f32x4.mul(f, f32x4.add(f32x4.splat(0.2422026), f32x4.mul(f, f32x4.splat(0.0550055)))))),
  );
  return i32x4.add(p, i32x4.shl(nearest, 23));
}

/**
 * Numbers of 4 bytes that `denoise` needs at `at` for a picture, its `width` a multiple of 4.
 *
 * @param cargo whether light goes along
 */
export function denoiseRoom(width: i32, height: i32, cargo: bool): i32 {
  const stride = width + 2 * MARGIN;
  const all = cargo ? WITH_CARGO : PLANES;
  const kinds = cargo ? SUMS + 3 : SUMS;
  return <i32>all * planeRoom(width, height) + <i32>kinds * apartFrom((ROWS + AHEAD) * stride) + 2 * (ROWS + 2) * (ACROSS + 8);
}

/** Numbers from one plane to the next. */
export function planeRoom(width: i32, height: i32): i32 {
  return apartFrom((width + 2 * MARGIN) * (height + 2 * MARGIN));
}

/** At least so many numbers, and three lines of a cache more than whole pages: the same place of all planes is not kept in one set. */
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
/** Whether light goes along, and so how many planes and sums there are. */
let carries: bool = false;
let allPlanes: usize = PLANES;
let allSums: usize = 7;

@inline
function place(x: i32, y: i32): usize {
  return planes + (<usize>((y + MARGIN) * stride + x + MARGIN) << 2);
}

/**
 * @param at the planes; `width` a multiple of 4
 * @param bright about how bright it is what a shadow covers
 * @param cargo whether light goes along
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

/** @param reach the square of how many steps away pixels are, at most */
function round(reach: i32, step: i32): void {
  prepare();
  const last = <i32>sqrt<f32>(<f32>reach);
  memory.fill(sums(), 0, allSums * each());
  for (let y = 0; y < high; y += ROWS) {
    const rows = min(ROWS, high - y);
    // Of two pixels each counts for the other, so those below, and to the right, are enough.
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

/** How fast distances change: by the smaller of both sides, since the larger may be that of an outline. */
function slopes(): void {
  border(FAR);
  const row: usize = <usize>stride << 2;
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x += 4) {
      const p = place(x, y) + FAR * plane;
      const z = v128.load(p);
      const across = f32x4.pmin(off(z, p - 4), off(z, p + 4));
      const down = f32x4.pmin(off(z, p - row), off(z, p + row));
      v128.store(place(x, y) + SLOPE * plane, f32x4.add(across, down));
    }
}

@inline
function off(z: v128, p: usize): v128 {
  return f32x4.abs(f32x4.sub(z, v128.load(p)));
}

/**
 * Brightness, as it is seen over what is behind, and variance as its mean over nine: it is uncertain itself. Beyond the
 * border they are as at it.
 */
function prepare(): void {
  border(VARIANCE);
  const row: usize = <usize>stride << 2;
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x += 4) {
      const p = place(x, y);
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

/** A number, and those before and after it. */
@inline
function three(p: usize): v128 {
  return f32x4.add(v128.load(p), f32x4.add(v128.load(p - 4), v128.load(p + 4)));
}

/** Repeats the border of a plane in its margin. */
function border(which: usize): void {
  for (let y = 0; y < high; y++) {
    const p = place(0, y) + which * plane;
    const first = load<f32>(p);
    const last = load<f32>(p + (<usize>(wide - 1) << 2));
    for (let x = 1; x <= MARGIN; x++) {
      store<f32>(p - (<usize>x << 2), first);
      store<f32>(p + (<usize>(wide - 1 + x) << 2), last);
    }
  }
  const row: usize = <usize>stride << 2;
  const top = place(-MARGIN, 0) + which * plane;
  const bottom = place(-MARGIN, high - 1) + which * plane;
  for (let y: usize = 1; y <= <usize>MARGIN; y++) {
    memory.copy(top - y * row, top, row);
    memory.copy(bottom + y * row, bottom, row);
  }
}

/**
 * Sums of the rows that are worked and of those ahead, with margins: of light, times weight, of variance times weight
 * squared, of cover, of weights; the largest weight; and of light that goes along, times weight.
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
/** How unlike pixels are, then what of it the variance of the first of both explains. */
@inline
function differences(): usize {
  return sums() + allSums * each();
}

/** Rows that are done make room for those ahead. */
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
 * A pixel itself counts as much as that of the others which counts most: one that is like none of them, dark or bright
 * by chance, is made like those that come nearest.
 */
function end(y: i32, rows: i32): void {
  const size = each();
  for (let j = 0; j < rows; j++)
    for (let x = 0; x < wide; x += 4) {
      const p = place(x, y + j);
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

/** Adds to the sums at `s`, each so long, what is at `q`, with a weight. */
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

/** The weight of pixels that are so unlike in what they show, and in their patches: the sum of nine differences. */
@inline
function weightOf(unlike: v128, nine: v128): v128 {
  const patches = f32x4.mul(f32x4.pmax(nine, f32x4.splat(0)), f32x4.splat(1 / <f32>9));
  return exp4(f32x4.neg(f32x4.add(unlike, patches)));
}

/** Adds to some rows the pixels that are so far to the right and down, and these to those. */
function shift(x0: i32, across: i32, y: i32, rows: i32, right: i32, down: i32): void {
  const q: isize = <isize>(down * stride + right) << 2;
  const width: usize = <usize>(ACROSS + 8) << 2;
  const d = differences();
  const also: usize = <usize>(ROWS + 2) * width;
  const zero = f32x4.splat(0);
  // How unlike pixels are beyond what their variance explains; a row and some pixels more on every side.
  for (let j = -1; j <= rows; j++) {
    let p = place(x0 - 4, y + j);
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
    // Of three beside each other, one behind: what is read is not yet written.
    to = d + <usize>(j + 1) * width;
    for (let x = 0; x < across; x += 4, to += 16) {
      v128.store(to, three(to + 16));
      v128.store(to + also, three(to + also + 16));
    }
  }
  const far = f32x4.splat(<f32>max(abs(right), abs(down)));
  const room = each();
  // Where planes and sums begin is worked out here, not again for every four pixels.
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
  for (let j = 0; j < rows; j++) {
    let p = place(x0, y + j);
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
      const unlike = f32x4.add(f32x4.add(turned, ahead), f32x4.mul(colours, f32x4.splat(COLOURS)));
      const nine = f32x4.add(v128.load(from), f32x4.add(v128.load(from - width), v128.load(from + width)));
      const first = from + also;
      const own = f32x4.add(v128.load(first), f32x4.add(v128.load(first - width), v128.load(first + width)));
      take(s, other, weightOf(unlike, f32x4.sub(nine, own)), room, green, blue, spread, cover, inside);
      // The variances of both explain as much as there is of them: 1 / PATCH, of each of nine.
      const there = weightOf(unlike, f32x4.add(nine, f32x4.sub(own, f32x4.splat(9 / PATCH))));
      take(s + q, p, there, room, green, blue, spread, cover, inside);
    }
  }
}
