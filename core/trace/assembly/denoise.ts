/**
 * Takes grain out of a picture by what its pixels have in common: means of pixels round about, in which one counts the
 * more, the more the patch about it is like that about the one in the middle, against how uncertain both are (A.
 * Buades, B. Coll & J.-M. Morel, “A non-local algorithm for image denoising”, 2005; with the variance of samples after
 * F. Rousselle, C. Knaus & M. Zwicker, “Adaptive rendering with non-local means filtering”, 2012), and the more alike
 * they are in the way they look, in how far they are and in colour. First of those nearest, then, of what came of it, of
 * some further away. Four pixels at once.
 *
 * Planes of numbers of 4 bytes, one after the other, each `stride` wide with a margin of MARGIN all round: red, green,
 * blue and variance of brightness, of light without the colour of what it falls on; 1 within the picture and 0 in the
 * margin; x, y, z of the normal; metres away; how fast those change; red, green and blue of the colour it falls on.
 * Then planes to work in: brightness, smoothed variance, and what comes of it, as the first four.
 */
export const MARGIN: i32 = 12;
const VARIANCE = 3;
const INSIDE = 4;
const NORMAL = 5;
const FAR = 8;
const SLOPE = 9;
const COLOUR = 10;
const BRIGHT = 13;
const SMOOTH = 14;
const OUT = 15;
const PLANES = 19;

/** How much patches may differ, squared, in their variance; normals; depth, of itself; colours. */
const PATCH: f32 = 0.2;
const NORMALS: f32 = 20;
const DEPTH: f32 = 0.02;
const COLOURS: f32 = 60;

/** What a pixel counts by itself at least. */
const LEAST: f32 = 0.1;

/** Rows that are worked at a time, so that what they need stays near. */
const ROWS = 8;

@inline
function exp4(x: v128): v128 {
  const y = f32x4.max(f32x4.mul(x, f32x4.splat(1.44269504)), f32x4.splat(-100));
  const whole = f32x4.floor(y);
  const f = f32x4.sub(y, whole);
  // 2ᶠ for 0…1, error 2e−4: a weight need not be righter.
  const p = f32x4.add(
    f32x4.splat(1),
    f32x4.mul(
      f,
      f32x4.add(f32x4.splat(0.6951786), f32x4.mul(f, f32x4.add(f32x4.splat(0.2261264), f32x4.mul(f, f32x4.splat(0.0786950))))),
    ),
  );
  const power = i32x4.shl(i32x4.add(i32x4.trunc_sat_f32x4_s(whole), i32x4.splat(127)), 23);
  return f32x4.mul(p, power);
}

/** Numbers of 4 bytes that `denoise` needs at `at` for a picture, its `width` a multiple of 4. */
export function denoiseRoom(width: i32, height: i32): i32 {
  const stride = width + 2 * MARGIN;
  return PLANES * stride * (height + 2 * MARGIN) + 6 * ROWS * width + (ROWS + 2) * (width + 8);
}

let stride: i32 = 0;
let plane: usize = 0;
let wide: i32 = 0;
let high: i32 = 0;
let planes: usize = 0;

@inline
function place(x: i32, y: i32): usize {
  return planes + (<usize>((y + MARGIN) * stride + x + MARGIN) << 2);
}

/** @param at the planes; `width` a multiple of 4 */
export function denoise(at: usize, width: i32, height: i32): void {
  stride = width + 2 * MARGIN;
  plane = <usize>(stride * (height + 2 * MARGIN)) << 2;
  wide = width;
  high = height;
  planes = at;
  round(10, 1);
  round(4, 4);
}

/** @param reach the square of how many steps away pixels are, at most */
function round(reach: i32, step: i32): void {
  prepare();
  const last = <i32>sqrt<f32>(<f32>reach);
  for (let y = 0; y < high; y += ROWS) {
    const rows = min(ROWS, high - y);
    begin();
    for (let j = -last; j <= last; j++)
      for (let i = -last; i <= last; i++) if ((i != 0 || j != 0) && i * i + j * j <= reach) shift(y, rows, i * step, j * step);
    end(y, rows);
  }
  memory.copy(planes, planes + OUT * plane, 4 * plane);
}

/** Brightness, and variance as its mean over nine: it is uncertain itself. Beyond the border they are as at it. */
function prepare(): void {
  border(VARIANCE);
  const row: usize = <usize>stride << 2;
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x += 4) {
      const p = place(x, y);
      v128.store(
        p + BRIGHT * plane,
        f32x4.add(
          f32x4.add(f32x4.mul(v128.load(p), f32x4.splat(0.2126)), f32x4.mul(v128.load(p + plane), f32x4.splat(0.7152))),
          f32x4.mul(v128.load(p + 2 * plane), f32x4.splat(0.0722)),
        ),
      );
      v128.store(p + SMOOTH * plane, f32x4.mul(f32x4.add(three(p + VARIANCE * plane), f32x4.add(three(p + VARIANCE * plane - row), three(p + VARIANCE * plane + row))), f32x4.splat(1 / <f32>9)));
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

/** Sums of rows that are worked: of weights, red, green, blue and variance; the largest weight; then differences of pixels. */
@inline
function sums(): usize {
  return planes + PLANES * plane;
}
@inline
function differences(): usize {
  return sums() + (<usize>(6 * ROWS * wide) << 2);
}

function begin(): void {
  memory.fill(sums(), 0, <usize>(6 * ROWS * wide) << 2);
}

/**
 * A pixel itself counts as much as that of the others which counts most: one that is like none of them, dark or bright
 * by chance, is made like those that come nearest.
 */
function end(y: i32, rows: i32): void {
  const each: usize = <usize>(ROWS * wide) << 2;
  for (let j = 0; j < rows; j++)
    for (let x = 0; x < wide; x += 4) {
      const p = place(x, y + j);
      const s = sums() + (<usize>(j * wide + x) << 2);
      const own = f32x4.max(v128.load(s + 5 * each), f32x4.splat(LEAST));
      const inv = f32x4.div(f32x4.splat(1), f32x4.add(v128.load(s), own));
      for (let k: usize = 0; k < 3; k++) {
        const sum = f32x4.add(v128.load(s + (k + 1) * each), f32x4.mul(own, v128.load(p + k * plane)));
        v128.store(p + (OUT + k) * plane, f32x4.mul(sum, inv));
      }
      const spread = f32x4.mul(f32x4.mul(own, own), v128.load(p + VARIANCE * plane));
      v128.store(p + (OUT + 3) * plane, f32x4.mul(f32x4.add(v128.load(s + 4 * each), spread), f32x4.mul(inv, inv)));
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

/** Adds to some rows the pixels that are so far to the right and down. */
function shift(y: i32, rows: i32, right: i32, down: i32): void {
  const q: isize = <isize>(down * stride + right) << 2;
  const width: usize = <usize>(wide + 8) << 2;
  const d = differences();
  const zero = f32x4.splat(0);
  // How unlike pixels are beyond what their variance explains; a row and some pixels more on every side.
  for (let j = -1; j <= rows; j++) {
    let p = place(-4, y + j);
    let to = d + <usize>(j + 1) * width;
    for (let x = -4; x < wide + 4; x += 4, p += 16, to += 16) {
      const other = p + q;
      const v = v128.load(p + SMOOTH * plane);
      const w = v128.load(other + SMOOTH * plane);
      const apart = f32x4.sub(v128.load(p + BRIGHT * plane), v128.load(other + BRIGHT * plane));
      const over = f32x4.sub(f32x4.mul(apart, apart), f32x4.add(v, f32x4.min(v, w)));
      v128.store(to, f32x4.div(over, f32x4.add(f32x4.mul(f32x4.add(v, w), f32x4.splat(PATCH)), f32x4.splat(1e-8))));
    }
    // Of three beside each other, one behind: what is read is not yet written.
    to = d + <usize>(j + 1) * width;
    for (let x = 0; x < wide; x += 4, to += 16) v128.store(to, three(to + 16));
  }
  const far = f32x4.splat(<f32>max(abs(right), abs(down)));
  const size = plane;
  const each: usize = <usize>(ROWS * wide) << 2;
  for (let j = 0; j < rows; j++) {
    let p = place(0, y + j);
    let s = sums() + (<usize>(j * wide) << 2);
    let from = d + <usize>(j + 1) * width;
    for (let x = 0; x < wide; x += 4, p += 16, s += 16, from += 16) {
      const other = p + q;
      const nine = f32x4.add(v128.load(from), f32x4.add(v128.load(from - width), v128.load(from + width)));
      let unlike = f32x4.mul(f32x4.max(nine, zero), f32x4.splat(1 / <f32>9));
      const dot = f32x4.add(along(p, other, NORMAL * size), f32x4.add(along(p, other, (NORMAL + 1) * size), along(p, other, (NORMAL + 2) * size)));
      const colours = f32x4.add(apartIn(p, other, COLOUR * size), f32x4.add(apartIn(p, other, (COLOUR + 1) * size), apartIn(p, other, (COLOUR + 2) * size)));
      const z = v128.load(p + FAR * size);
      const ahead = f32x4.div(
        f32x4.abs(f32x4.sub(v128.load(other + FAR * size), z)),
        f32x4.add(f32x4.add(f32x4.mul(v128.load(p + SLOPE * size), far), f32x4.mul(z, f32x4.splat(DEPTH))), f32x4.splat(1e-6)),
      );
      unlike = f32x4.add(unlike, f32x4.mul(f32x4.max(zero, f32x4.sub(f32x4.splat(1), dot)), f32x4.splat(NORMALS)));
      unlike = f32x4.add(f32x4.add(unlike, ahead), f32x4.mul(colours, f32x4.splat(COLOURS)));
      const w = f32x4.mul(exp4(f32x4.neg(unlike)), v128.load(other + INSIDE * size));
      plus(s, w);
      v128.store(s + 5 * each, f32x4.max(v128.load(s + 5 * each), w));
      plus(s + each, f32x4.mul(w, v128.load(other)));
      plus(s + 2 * each, f32x4.mul(w, v128.load(other + size)));
      plus(s + 3 * each, f32x4.mul(w, v128.load(other + 2 * size)));
      plus(s + 4 * each, f32x4.mul(f32x4.mul(w, w), v128.load(other + VARIANCE * size)));
    }
  }
}
