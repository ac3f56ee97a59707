/**
 * Takes grain out of a picture by what its pixels have in common: means over ever wider neighbourhoods, in which a
 * pixel counts the more, the more it is like the one in the middle in the way it looks, in how far it is, and in
 * brightness, against how uncertain that is (H. Dammertz et al., “Edge-Avoiding À-Trous Wavelet Transform for fast
 * Global Illumination Filtering”, 2010; uncertainty after C. Schied et al., “Spatiotemporal Variance-Guided Filtering”,
 * 2017, without anything of other frames). Four pixels at once.
 *
 * Planes of numbers of 4 bytes, one after the other, each `stride` wide with a margin of MARGIN all round: red, green,
 * blue and variance of brightness, of light without the colour of what it falls on; 1 within the picture and 0 in the
 * margin; x, y, z of the normal; metres away; how fast those change. Then four planes more to work in.
 */
const MARGIN: i32 = 36;
const ROUNDS: i32 = 5;

/** How much brightness may differ, in standard errors of it; normals; depth, of itself. */
const BRIGHTNESS: f32 = 1.5;
const NORMAL: f32 = 48;
const DEPTH: f32 = 0.01;

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

@inline
function brightness4(r: v128, g: v128, b: v128): v128 {
  return f32x4.add(
    f32x4.add(f32x4.mul(r, f32x4.splat(0.2126)), f32x4.mul(g, f32x4.splat(0.7152))),
    f32x4.mul(b, f32x4.splat(0.0722)),
  );
}

@inline
function spline(k: i32): f32 {
  return k == 0 ? 0.375 : abs(k) == 1 ? 0.25 : 0.0625;
}

/** @param at the planes; `width` a multiple of 4 */
export function denoise(at: usize, width: i32, height: i32): void {
  const stride = width + 2 * MARGIN;
  const plane: usize = <usize>(stride * (height + 2 * MARGIN)) << 2;
  let from = at;
  let to = at + 10 * plane;
  for (let round = 0; round < ROUNDS; round++) {
    pass(from, to, at, plane, stride, width, height, 1 << round);
    const other = from;
    from = to;
    to = other;
  }
  // An odd number of rounds ends in the planes to work in.
  memory.copy(at, at + 10 * plane, 4 * plane);
}

function pass(
  from: usize,
  to: usize,
  at: usize,
  plane: usize,
  stride: i32,
  width: i32,
  height: i32,
  step: i32,
): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const row: usize = <usize>stride << 2;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x += 4) {
      const o: usize = <usize>((y + MARGIN) * stride + x + MARGIN) << 2;
      const p = from + o;
      const f = at + 4 * plane + o;
      const r = v128.load(p);
      const g = v128.load(p + plane);
      const b = v128.load(p + 2 * plane);
      const l = brightness4(r, g, b);
      const nx = v128.load(f + plane);
      const ny = v128.load(f + 2 * plane);
      const nz = v128.load(f + 3 * plane);
      const z = v128.load(f + 4 * plane);
      const slope = v128.load(f + 5 * plane);
      // Variance is uncertain itself: its mean over the nearest is taken (a tent of nine).
      const v = p + 3 * plane;
      let mean = f32x4.mul(v128.load(v), f32x4.splat(0.25));
      mean = f32x4.add(mean, f32x4.mul(f32x4.add(f32x4.add(v128.load(v - 4), v128.load(v + 4)), f32x4.add(v128.load(v - row), v128.load(v + row))), f32x4.splat(0.125)));
      mean = f32x4.add(mean, f32x4.mul(f32x4.add(f32x4.add(v128.load(v - row - 4), v128.load(v - row + 4)), f32x4.add(v128.load(v + row - 4), v128.load(v + row + 4))), f32x4.splat(0.0625)));
      const kl = f32x4.div(one, f32x4.add(f32x4.mul(f32x4.sqrt(f32x4.max(mean, zero)), f32x4.splat(BRIGHTNESS)), f32x4.splat(1e-5)));
      const near = f32x4.mul(z, f32x4.splat(DEPTH));
      let sum = f32x4.splat(0.140625);
      let sr = f32x4.mul(r, sum);
      let sg = f32x4.mul(g, sum);
      let sb = f32x4.mul(b, sum);
      let sv = f32x4.mul(v128.load(v), f32x4.mul(sum, sum));
      for (let j = -2; j <= 2; j++)
        for (let i = -2; i <= 2; i++) {
          if (i == 0 && j == 0) continue;
          const q: isize = <isize>((j * stride + i) * step) << 2;
          const other = p + q;
          const guide = f + q;
          const qr = v128.load(other);
          const qg = v128.load(other + plane);
          const qb = v128.load(other + 2 * plane);
          const dl = f32x4.mul(f32x4.abs(f32x4.sub(brightness4(qr, qg, qb), l)), kl);
          const dot = f32x4.add(
            f32x4.add(f32x4.mul(nx, v128.load(guide + plane)), f32x4.mul(ny, v128.load(guide + 2 * plane))),
            f32x4.mul(nz, v128.load(guide + 3 * plane)),
          );
          const dn = f32x4.mul(f32x4.max(zero, f32x4.sub(one, dot)), f32x4.splat(NORMAL));
          const far = f32x4.splat(<f32>(max(abs(i), abs(j)) * step));
          const dz = f32x4.div(
            f32x4.abs(f32x4.sub(v128.load(guide + 4 * plane), z)),
            f32x4.add(f32x4.add(f32x4.mul(slope, far), near), f32x4.splat(1e-6)),
          );
          const w = f32x4.mul(
            f32x4.mul(exp4(f32x4.neg(f32x4.add(f32x4.add(dl, dn), dz))), f32x4.splat(spline(i) * spline(j))),
            v128.load(guide),
          );
          sum = f32x4.add(sum, w);
          sr = f32x4.add(sr, f32x4.mul(qr, w));
          sg = f32x4.add(sg, f32x4.mul(qg, w));
          sb = f32x4.add(sb, f32x4.mul(qb, w));
          sv = f32x4.add(sv, f32x4.mul(v128.load(other + 3 * plane), f32x4.mul(w, w)));
        }
      const inv = f32x4.div(one, sum);
      const out = to + o;
      v128.store(out, f32x4.mul(sr, inv));
      v128.store(out + plane, f32x4.mul(sg, inv));
      v128.store(out + 2 * plane, f32x4.mul(sb, inv));
      v128.store(out + 3 * plane, f32x4.mul(sv, f32x4.mul(inv, inv)));
    }
}
