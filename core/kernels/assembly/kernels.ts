// Kernels in AssemblyScript, compiled to WebAssembly with SIMD by `npm run kernels`. Addresses are in
// bytes; nothing is allocated here. The plain TypeScript beside each caller is the reference.

// @ts-ignore: decorator
@inline
function lerp4(t: v128, a: v128, b: v128): v128 {
  return f32x4.add(a, f32x4.mul(t, f32x4.sub(b, a)));
}

// @ts-ignore: decorator
@inline
function corner(table: usize, index: u32, d: v128): v128 {
  return f32x4.mul(v128.load(table + (<usize>index << 4)), d);
}

/** The quintic fade of four at once. */
// @ts-ignore: decorator
@inline
function fade(x: v128): v128 {
  const p = f32x4.add(f32x4.mul(x, f32x4.sub(f32x4.mul(x, f32x4.splat(6)), f32x4.splat(15))), f32x4.splat(10));
  return f32x4.mul(f32x4.mul(f32x4.mul(x, x), x), p);
}

/** A whole number as an integer, without the checks of a conversion: its low bits after adding 1.5 · 2⁵². */
// @ts-ignore: decorator
@inline
function whole(x: f64): i32 {
  return <i32>reinterpret<i64>(x + 6755399441055744.0);
}

/**
 * Gradient noise. Blends the products of gradient and offset component by component, and sums the
 * components once at the end.
 *
 * points: f32 ×3 each; affine: f64 ×12, rows of a 3×4 matrix; perm: 512 bytes; table: 256 gradients of
 * f32 ×4, the last 0; out: f32 each, `weight` times the noise added to what is there.
 */
export function gradient(points: usize, count: u32, affine: usize, perm: usize, table: usize, mask: i32, weight: f32, out: usize): void {
  const m0 = load<f64>(affine), m1 = load<f64>(affine, 8), m2 = load<f64>(affine, 16), m3 = load<f64>(affine, 24);
  const m4 = load<f64>(affine, 32), m5 = load<f64>(affine, 40), m6 = load<f64>(affine, 48), m7 = load<f64>(affine, 56);
  const m8 = load<f64>(affine, 64), m9 = load<f64>(affine, 72), m10 = load<f64>(affine, 80), m11 = load<f64>(affine, 88);
  for (let i: u32 = 0; i < count; i++) {
    const px = <f64>load<f32>(points), py = <f64>load<f32>(points, 4), pz = <f64>load<f32>(points, 8);
    points += 12;
    const x = m0 * px + m1 * py + m2 * pz + m3;
    const y = m4 * px + m5 * py + m6 * pz + m7;
    const z = m8 * px + m9 * py + m10 * pz + m11;
    const fx = Math.floor(x), fy = Math.floor(y), fz = Math.floor(z);
    const rx = <f32>(x - fx), ry = <f32>(y - fy), rz = <f32>(z - fz);
    const X = whole(fx) & mask, Y = whole(fy) & mask, Z = whole(fz) & mask;
    const X1 = (X + 1) & mask, Y1 = (Y + 1) & mask, Z1 = (Z + 1) & mask;
    const A = <i32>load<u8>(perm + X), B = <i32>load<u8>(perm + X1);
    const AA = <i32>load<u8>(perm + A + Y), AB = <i32>load<u8>(perm + A + Y1);
    const BA = <i32>load<u8>(perm + B + Y), BB = <i32>load<u8>(perm + B + Y1);
    const d000 = f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(rx), 1, ry), 2, rz);
    const d100 = f32x4.sub(d000, f32x4(1, 0, 0, 0));
    const d010 = f32x4.sub(d000, f32x4(0, 1, 0, 0));
    const d110 = f32x4.sub(d000, f32x4(1, 1, 0, 0));
    const oneZ = f32x4(0, 0, 1, 0);
    const f = fade(d000);
    const u = v128.shuffle<f32>(f, f, 0, 0, 0, 0), v = v128.shuffle<f32>(f, f, 1, 1, 1, 1), w = v128.shuffle<f32>(f, f, 2, 2, 2, 2);
    const a = lerp4(u, corner(table, load<u8>(perm + AA + Z), d000), corner(table, load<u8>(perm + BA + Z), d100));
    const b = lerp4(u, corner(table, load<u8>(perm + AB + Z), d010), corner(table, load<u8>(perm + BB + Z), d110));
    const c = lerp4(u, corner(table, load<u8>(perm + AA + Z1), f32x4.sub(d000, oneZ)), corner(table, load<u8>(perm + BA + Z1), f32x4.sub(d100, oneZ)));
    const d = lerp4(u, corner(table, load<u8>(perm + AB + Z1), f32x4.sub(d010, oneZ)), corner(table, load<u8>(perm + BB + Z1), f32x4.sub(d110, oneZ)));
    const s = lerp4(w, lerp4(v, a, b), lerp4(v, c, d));
    const n = f32x4.extract_lane(s, 0) + f32x4.extract_lane(s, 1) + f32x4.extract_lane(s, 2);
    store<f32>(out, load<f32>(out) + weight * n);
    out += 4;
  }
}

/**
 * Distance to the nearest feature point (F1, Euclid). The eight cells nearest to the place come first,
 * four at a time; the other nineteen only where one of them is near enough to hold a nearer point.
 *
 * table: 256 feature points of f32 ×4, the last 0; the rest as above. Adds weight · (distance − mean).
 */
export function cellular(points: usize, count: u32, affine: usize, perm: usize, table: usize, mask: i32, mean: f32, weight: f32, out: usize): void {
  const m0 = load<f64>(affine), m1 = load<f64>(affine, 8), m2 = load<f64>(affine, 16), m3 = load<f64>(affine, 24);
  const m4 = load<f64>(affine, 32), m5 = load<f64>(affine, 40), m6 = load<f64>(affine, 48), m7 = load<f64>(affine, 56);
  const m8 = load<f64>(affine, 64), m9 = load<f64>(affine, 72), m10 = load<f64>(affine, 80), m11 = load<f64>(affine, 88);
  for (let i: u32 = 0; i < count; i++) {
    const px = <f64>load<f32>(points), py = <f64>load<f32>(points, 4), pz = <f64>load<f32>(points, 8);
    points += 12;
    const ex = m0 * px + m1 * py + m2 * pz + m3;
    const ey = m4 * px + m5 * py + m6 * pz + m7;
    const ez = m8 * px + m9 * py + m10 * pz + m11;
    const fx = Math.floor(ex), fy = Math.floor(ey), fz = Math.floor(ez);
    const x = <f32>(ex - fx), y = <f32>(ey - fy), z = <f32>(ez - fz);
    const X = whole(fx), Y = whole(fy), Z = whole(fz);
    // The side on which the nearer neighbour lies: −1 or 1.
    const sx = select<i32>(-1, 1, x < 0.5), sy = select<i32>(-1, 1, y < 0.5), sz = select<i32>(-1, 1, z < 0.5);
    const A = <i32>load<u8>(perm + (X & mask)), B = <i32>load<u8>(perm + ((X + sx) & mask));
    const y0 = Y & mask, y1 = (Y + sy) & mask, z0 = Z & mask, z1 = (Z + sz) & mask;
    const AA = perm + <usize>load<u8>(perm + A + y0), AB = perm + <usize>load<u8>(perm + A + y1);
    const BA = perm + <usize>load<u8>(perm + B + y0), BB = perm + <usize>load<u8>(perm + B + y1);
    const from = f32x4.replace_lane(f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(0), 0, x), 1, y), 2, z);
    const dx = f32x4.replace_lane(f32x4.splat(0), 0, <f32>sx), dy = f32x4.replace_lane(f32x4.splat(0), 1, <f32>sy), dz = f32x4.replace_lane(f32x4.splat(0), 2, <f32>sz);
    const fromX = f32x4.sub(from, dx), fromY = f32x4.sub(from, dy), fromXY = f32x4.sub(fromX, dy);
    const near = f32x4.min(
      four(square(table, load<u8>(AA + z0), from), square(table, load<u8>(BA + z0), fromX), square(table, load<u8>(AB + z0), fromY), square(table, load<u8>(BB + z0), fromXY)),
      four(square(table, load<u8>(AA + z1), f32x4.sub(from, dz)), square(table, load<u8>(BA + z1), f32x4.sub(fromX, dz)), square(table, load<u8>(AB + z1), f32x4.sub(fromY, dz)), square(table, load<u8>(BB + z1), f32x4.sub(fromXY, dz))),
    );
    let best = least(near);
    // Squares of the ways to the far side along each axis, each at least ¼. Beyond one far side lie four
    // cells that are beyond no other; those beyond two are seldom near enough.
    const wx = max<f32>(x, <f32>1 - x), wy = max<f32>(y, <f32>1 - y), wz = max<f32>(z, <f32>1 - z);
    const fx2 = wx * wx, fy2 = wy * wy, fz2 = wz * wz;
    if (fx2 < best) {
      const C = perm + <usize>load<u8>(perm + ((X - sx) & mask));
      const CA = perm + <usize>load<u8>(C + y0), CB = perm + <usize>load<u8>(C + y1);
      const fromC = f32x4.add(from, dx), fromCY = f32x4.sub(fromC, dy);
      best = min<f32>(best, least(four(square(table, load<u8>(CA + z0), fromC), square(table, load<u8>(CA + z1), f32x4.sub(fromC, dz)), square(table, load<u8>(CB + z0), fromCY), square(table, load<u8>(CB + z1), f32x4.sub(fromCY, dz)))));
    }
    if (fy2 < best) {
      const y2 = (Y - sy) & mask;
      const AC = perm + <usize>load<u8>(perm + A + y2), BC = perm + <usize>load<u8>(perm + B + y2);
      const fromA = f32x4.add(from, dy), fromB = f32x4.add(fromX, dy);
      best = min<f32>(best, least(four(square(table, load<u8>(AC + z0), fromA), square(table, load<u8>(AC + z1), f32x4.sub(fromA, dz)), square(table, load<u8>(BC + z0), fromB), square(table, load<u8>(BC + z1), f32x4.sub(fromB, dz)))));
    }
    if (fz2 < best) {
      const z2 = (Z - sz) & mask;
      best = min<f32>(best, least(four(square(table, load<u8>(AA + z2), f32x4.add(from, dz)), square(table, load<u8>(BA + z2), f32x4.add(fromX, dz)), square(table, load<u8>(AB + z2), f32x4.add(fromY, dz)), square(table, load<u8>(BB + z2), f32x4.add(fromXY, dz)))));
    }
    if (best > 1 || min<f32>(fx2 + fy2, min<f32>(fx2 + fz2, fy2 + fz2)) < best) best = others(perm, table, X, Y, Z, mask, x, y, z, sx, sy, sz, best);
    store<f32>(out, load<f32>(out) + weight * (sqrt<f32>(best) - mean));
    out += 4;
  }
}

// @ts-ignore: decorator
@inline
function square(table: usize, index: u32, from: v128): v128 {
  const d = f32x4.sub(v128.load(table + (<usize>index << 4)), from);
  return f32x4.mul(d, d);
}

// @ts-ignore: decorator
@inline
function least(v: v128): f32 {
  const half = f32x4.min(v, v128.shuffle<f32>(v, v, 2, 3, 0, 1));
  return min<f32>(f32x4.extract_lane(half, 0), f32x4.extract_lane(half, 1));
}

/** Sums of the first three numbers of each of four, side by side. */
// @ts-ignore: decorator
@inline
function four(a: v128, b: v128, c: v128, d: v128): v128 {
  const ab = v128.shuffle<f32>(a, b, 0, 4, 1, 5), cd = v128.shuffle<f32>(c, d, 0, 4, 1, 5);
  const xs = v128.shuffle<f32>(ab, cd, 0, 1, 4, 5), ys = v128.shuffle<f32>(ab, cd, 2, 3, 6, 7);
  const zs = v128.shuffle<f32>(v128.shuffle<f32>(a, b, 2, 6, 2, 6), v128.shuffle<f32>(c, d, 2, 6, 2, 6), 0, 1, 4, 5);
  return f32x4.add(f32x4.add(xs, ys), zs);
}

/** The square of the way to the cells one on, back or not at all along an axis. */
// @ts-ignore: decorator
@inline
function away(step: i32, near: i32, at: f32): f32 {
  if (step == 0) return 0;
  const far = max<f32>(at, <f32>1 - at);
  const way = step == near ? <f32>1 - far : far;
  return way * way;
}

/** The cells beyond two far sides or three; and where all are far, the next ring. */
function others(perm: usize, table: usize, X: i32, Y: i32, Z: i32, mask: i32, x: f32, y: f32, z: f32, sx: i32, sy: i32, sz: i32, nearest: f32): f32 {
  let best = nearest;
  for (let a = -1; a <= 1; a++)
    for (let b = -1; b <= 1; b++)
      for (let c = -1; c <= 1; c++) {
        if (<i32>(a == -sx) + <i32>(b == -sy) + <i32>(c == -sz) < 2) continue;
        if (away(a, sx, x) + away(b, sy, y) + away(c, sz, z) >= best) continue;
        best = min<f32>(best, cell(perm, table, X, Y, Z, mask, x, y, z, a, b, c));
      }
  if (best <= 1) return best;
  // Only a point farther than a cell can have a nearer one outside the 27 cells.
  for (let a = -2; a <= 2; a++) for (let b = -2; b <= 2; b++) for (let c = -2; c <= 2; c++) best = min<f32>(best, cell(perm, table, X, Y, Z, mask, x, y, z, a, b, c));
  return best;
}

// @ts-ignore: decorator
@inline
function cell(perm: usize, table: usize, X: i32, Y: i32, Z: i32, mask: i32, x: f32, y: f32, z: f32, a: i32, b: i32, c: i32): f32 {
  const n = <i32>load<u8>(perm + (<i32>load<u8>(perm + (<i32>load<u8>(perm + ((X + a) & mask)) + ((Y + b) & mask))) + ((Z + c) & mask)));
  return distance(table, n, <f32>a - x, <f32>b - y, <f32>c - z);
}

// @ts-ignore: decorator
@inline
function distance(table: usize, index: i32, ox: f32, oy: f32, oz: f32): f32 {
  const at = table + (<usize>index << 4);
  const dx = ox + load<f32>(at), dy = oy + load<f32>(at, 4), dz = oz + load<f32>(at, 8);
  return dx * dx + dy * dy + dz * dz;
}

/** What comes after the sum of octaves, in place: bent values times contrast, plus brightness, between low and high. bends: 1 absolute, 2 inverted. */
export function finish(values: usize, count: u32, bends: i32, contrast: f32, brightness: f32, low: f32, high: f32): void {
  const sign = f32x4.splat(bends & 2 ? -contrast : contrast), plus = f32x4.splat(brightness), least = f32x4.splat(low), most = f32x4.splat(high);
  const end = values + (<usize>count << 2);
  for (; values < end; values += 16) {
    let v = v128.load(values);
    if (bends & 1) v = f32x4.abs(v);
    v128.store(values, f32x4.min(f32x4.max(f32x4.add(f32x4.mul(v, sign), plus), least), most));
  }
}

/** rows of a sparse matrix times points: start u32 × (rows + 1), index u32 and weight f32 an entry; from and to f32 ×3 each, with room for one number more after both. */
export function product(start: usize, index: usize, weight: usize, rows: u32, from: usize, to: usize): void {
  let k: u32 = load<u32>(start);
  for (let i: u32 = 0; i < rows; i++) {
    start += 4;
    const end = load<u32>(start);
    let sum = f32x4.splat(0);
    for (; k < end; k++) sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(weight + (<usize>k << 2)), v128.load(from + <usize>load<u32>(index + (<usize>k << 2)) * 12)));
    // Four numbers are written; the fourth is the next row's first and is written right after.
    v128.store(to, sum);
    to += 12;
  }
}

/** Rows of averages: a · first + b · the rest. start u32 a row and one more; index u32; code a byte a row; weights f32 ×2 a code; base: points of f32 ×3. */
export function averages(start: usize, index: usize, code: usize, weights: usize, rows: u32, base: usize, to: usize): void {
  let k: u32 = load<u32>(start);
  for (let i: u32 = 0; i < rows; i++) {
    start += 4;
    const end = load<u32>(start);
    const pair = weights + (<usize>load<u8>(code + i) << 3);
    const first = v128.load(base + <usize>load<u32>(index + (<usize>k << 2)) * 12);
    let rest = f32x4.splat(0);
    for (k++; k < end; k++) rest = f32x4.add(rest, v128.load(base + <usize>load<u32>(index + (<usize>k << 2)) * 12));
    const sum = f32x4.add(f32x4.mul(v128.load32_splat(pair), first), f32x4.mul(v128.load32_splat(pair, 4), rest));
    if (i + 1 < rows) v128.store(to, sum);
    else {
      // Behind the last row lie points that are there already.
      store<f32>(to, f32x4.extract_lane(sum, 0));
      store<f32>(to, f32x4.extract_lane(sum, 1), 4);
      store<f32>(to, f32x4.extract_lane(sum, 2), 8);
    }
    to += 12;
  }
}

/** One pass of smoothing: (1 − s) of each point and s of the mean of its neighbours; held points stay. held: a byte a point. */
export function smooth(start: usize, neighbours: usize, held: usize, count: u32, strength: f32, from: usize, to: usize): void {
  let k: u32 = load<u32>(start);
  let own = from;
  const keep = f32x4.splat(<f32>1 - strength);
  for (let i: u32 = 0; i < count; i++) {
    start += 4;
    const end = load<u32>(start);
    const here = v128.load(own);
    if (load<u8>(held + i) || end == k) {
      v128.store(to, here);
      k = end;
    } else {
      const share = strength / <f32>(end - k);
      let sum = f32x4.splat(0);
      for (; k < end; k++) sum = f32x4.add(sum, v128.load(from + <usize>load<u32>(neighbours + (<usize>k << 2)) * 12));
      v128.store(to, f32x4.add(f32x4.mul(keep, here), f32x4.mul(f32x4.splat(share), sum)));
    }
    own += 12;
    to += 12;
  }
}

/** Vector areas of faces added up at `target` of each corner, then made unit length; (0, 1, 0) where there is none. out: f32 ×4 a vertex, cleared by the caller. */
export function normals(faceStart: usize, corners: usize, target: usize, faces: u32, positions: usize, out: usize, count: u32): void {
  let k: u32 = load<u32>(faceStart);
  for (let f: u32 = 0; f < faces; f++) {
    faceStart += 4;
    const end = load<u32>(faceStart);
    const first = k;
    const o = v128.load(positions + <usize>load<u32>(corners + (<usize>k << 2)) * 12);
    let a = f32x4.splat(0), n = f32x4.splat(0);
    for (k = first + 1; k < end; k++) {
      const b = f32x4.sub(v128.load(positions + <usize>load<u32>(corners + (<usize>k << 2)) * 12), o);
      const t = f32x4.sub(f32x4.mul(a, v128.shuffle<f32>(b, b, 1, 2, 0, 3)), f32x4.mul(b, v128.shuffle<f32>(a, a, 1, 2, 0, 3)));
      n = f32x4.add(n, v128.shuffle<f32>(t, t, 1, 2, 0, 3));
      a = b;
    }
    for (k = first; k < end; k++) {
      const at = out + (<usize>load<u32>(target + (<usize>k << 2)) << 4);
      v128.store(at, f32x4.add(v128.load(at), n));
    }
  }
  let packed = out;
  for (let i: u32 = 0; i < count; i++) {
    const n = v128.load(out);
    out += 16;
    const x = f32x4.extract_lane(n, 0), y = f32x4.extract_lane(n, 1), z = f32x4.extract_lane(n, 2);
    const l = sqrt<f32>(x * x + y * y + z * z);
    const s: f32 = l > 0 ? <f32>1 / l : <f32>0;
    // Packed to three numbers in place: writing never overtakes reading.
    store<f32>(packed, x * s);
    store<f32>(packed, l > 0 ? y * s : <f32>1, 4);
    store<f32>(packed, z * s, 8);
    packed += 12;
  }
}

/** Gradient of one potential: the blended gradients of the corners, and what the blending itself adds. a…h: corners 000, 100, 010, 110, 001, 101, 011, 111; p…w: the ways to them. */
// @ts-ignore: decorator
@inline
function slope(a: v128, b: v128, c: v128, d: v128, e: v128, f: v128, g: v128, h: v128, p: v128, q: v128, r: v128, s: v128, t: v128, m: v128, n: v128, o: v128, x: v128, y: v128, z: v128, weights: v128, vs: f32, ws: f32, dx: f32, dy: f32, dz: f32): v128 {
  const blended = lerp4(z, lerp4(y, lerp4(x, a, b), lerp4(x, c, d)), lerp4(y, lerp4(x, e, f), lerp4(x, g, h)));
  const low = four(f32x4.mul(a, p), f32x4.mul(c, r), f32x4.mul(e, t), f32x4.mul(g, n));
  const high = four(f32x4.mul(b, q), f32x4.mul(d, s), f32x4.mul(f, m), f32x4.mul(h, o));
  const rise = f32x4.sub(high, low);
  const k = f32x4.add(low, f32x4.mul(x, rise));
  const k0 = f32x4.extract_lane(k, 0), k1 = f32x4.extract_lane(k, 1), k2 = f32x4.extract_lane(k, 2), k3 = f32x4.extract_lane(k, 3);
  const across = f32x4.mul(rise, weights);
  const sx = f32x4.extract_lane(across, 0) + f32x4.extract_lane(across, 1) + f32x4.extract_lane(across, 2) + f32x4.extract_lane(across, 3);
  const sy = (k1 - k0) * (1 - ws) + (k3 - k2) * ws;
  const sz = (k2 - k0) * (1 - vs) + (k3 - k1) * vs;
  return f32x4.add(blended, f32x4.replace_lane(f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(0), 0, dx * sx), 1, dy * sy), 2, dz * sz));
}

/**
 * Curl of three potentials of gradient noise, by their exact derivatives.
 *
 * points: f32 ×3 each; place: f64 ×4, factor and offsets to the lattice; table: 256 times three gradients
 * of f32 ×4, the last 0; out: f32 ×3 each, `weight` times the curl added to what is there.
 */
export function curl(points: usize, count: u32, place: usize, perm: usize, table: usize, weight: f32, out: usize): void {
  const factor = load<f64>(place), ox = load<f64>(place, 8), oy = load<f64>(place, 16), oz = load<f64>(place, 24);
  for (let i: u32 = 0; i < count; i++) {
    const x = <f64>load<f32>(points) * factor + ox, y = <f64>load<f32>(points, 4) * factor + oy, z = <f64>load<f32>(points, 8) * factor + oz;
    points += 12;
    const fx = Math.floor(x), fy = Math.floor(y), fz = Math.floor(z);
    const rx = <f32>(x - fx), ry = <f32>(y - fy), rz = <f32>(z - fz);
    const X = whole(fx) & 255, Y = whole(fy) & 255, Z = whole(fz) & 255;
    // The table of 512 runs on where a lattice number would wrap.
    const A = perm + <usize>load<u8>(perm + X) + Y, B = perm + <usize>load<u8>(perm + X + 1) + Y;
    const AA = perm + <usize>load<u8>(A) + Z, AB = perm + <usize>load<u8>(A + 1) + Z, BA = perm + <usize>load<u8>(B) + Z, BB = perm + <usize>load<u8>(B + 1) + Z;
    const a = table + <usize>load<u8>(AA) * 48, b = table + <usize>load<u8>(BA) * 48, c = table + <usize>load<u8>(AB) * 48, d = table + <usize>load<u8>(BB) * 48;
    const e = table + <usize>load<u8>(AA + 1) * 48, f = table + <usize>load<u8>(BA + 1) * 48, g = table + <usize>load<u8>(AB + 1) * 48, h = table + <usize>load<u8>(BB + 1) * 48;
    const p = f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(rx), 1, ry), 2, rz);
    const oneZ = f32x4(0, 0, 1, 0);
    const q = f32x4.sub(p, f32x4(1, 0, 0, 0)), r = f32x4.sub(p, f32x4(0, 1, 0, 0)), s = f32x4.sub(p, f32x4(1, 1, 0, 0));
    const t = f32x4.sub(p, oneZ), m = f32x4.sub(q, oneZ), n = f32x4.sub(r, oneZ), o = f32x4.sub(s, oneZ);
    const w = fade(p);
    const us = v128.shuffle<f32>(w, w, 0, 0, 0, 0), vv = v128.shuffle<f32>(w, w, 1, 1, 1, 1), ww = v128.shuffle<f32>(w, w, 2, 2, 2, 2);
    const vs = f32x4.extract_lane(w, 1), ws = f32x4.extract_lane(w, 2);
    const weights = f32x4.mul(f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(1 - vs), 1, vs), 3, vs), f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(1 - ws), 2, ws), 3, ws));
    const dx: f32 = 30 * rx * rx * (rx * (rx - 2) + 1), dy: f32 = 30 * ry * ry * (ry * (ry - 2) + 1), dz: f32 = 30 * rz * rz * (rz * (rz - 2) + 1);
    const s0 = slope(v128.load(a), v128.load(b), v128.load(c), v128.load(d), v128.load(e), v128.load(f), v128.load(g), v128.load(h), p, q, r, s, t, m, n, o, us, vv, ww, weights, vs, ws, dx, dy, dz);
    const s1 = slope(v128.load(a, 16), v128.load(b, 16), v128.load(c, 16), v128.load(d, 16), v128.load(e, 16), v128.load(f, 16), v128.load(g, 16), v128.load(h, 16), p, q, r, s, t, m, n, o, us, vv, ww, weights, vs, ws, dx, dy, dz);
    const s2 = slope(v128.load(a, 32), v128.load(b, 32), v128.load(c, 32), v128.load(d, 32), v128.load(e, 32), v128.load(f, 32), v128.load(g, 32), v128.load(h, 32), p, q, r, s, t, m, n, o, us, vv, ww, weights, vs, ws, dx, dy, dz);
    store<f32>(out, load<f32>(out) + weight * (f32x4.extract_lane(s2, 1) - f32x4.extract_lane(s1, 2)));
    store<f32>(out, load<f32>(out, 4) + weight * (f32x4.extract_lane(s0, 2) - f32x4.extract_lane(s2, 0)), 4);
    store<f32>(out, load<f32>(out, 8) + weight * (f32x4.extract_lane(s1, 0) - f32x4.extract_lane(s0, 1)), 8);
    out += 12;
  }
}
