import { fade, four, lerp4, whole } from './common';

/**
 * Gradient of one potential: the blended gradients of the corners, and what the blending itself adds. a…h:
 * corners 000, 100, 010, 110, 001, 101, 011, 111; p…w: the ways to them.
 */
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
    // The table of 512 continues where a lattice number would wrap.
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
