// Meshes: subdivision as a sparse product, smoothing, normals.

/**
 * rows of a sparse matrix times points: start u32 × (rows + 1), index u32 and weight f32 an entry; from and to
 * f32 ×3 each, with room for one number more after both.
 */
export function product(start: usize, index: usize, weight: usize, rows: u32, from: usize, to: usize): void {
  let k: u32 = load<u32>(start);
  for (let i: u32 = 0; i < rows; i++) {
    start += 4;
    const end = load<u32>(start);
    let sum = f32x4.splat(0);
    for (; k < end; k++) sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(weight + (<usize>k << 2)), v128.load(from + <usize>load<u32>(index + (<usize>k << 2)) * 12)));
    // Writes four numbers; the next row overwrites the fourth.
    v128.store(to, sum);
    to += 12;
  }
}

/**
 * Rows of averages: a · first + b · the rest. start u32 a row and one more; index u32; code a byte a row;
 * weights f32 ×2 a code; base: points of f32 ×3.
 */
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
      // The memory behind the last row holds existing points.
      store<f32>(to, f32x4.extract_lane(sum, 0));
      store<f32>(to, f32x4.extract_lane(sum, 1), 4);
      store<f32>(to, f32x4.extract_lane(sum, 2), 8);
    }
    to += 12;
  }
}

/**
 * Rows of averages of four points each, with equal weights: a for the first two and b for the others. Writes up to 12
 * bytes behind the last row.
 */
export function fours(index: usize, a: f32, b: f32, rows: u32, base: usize, to: usize): void {
  const first = f32x4.splat(a), rest = f32x4.splat(b);
  for (const end = to + <usize>rows * 12; to < end; to += 12) {
    const ends = f32x4.add(v128.load(base + <usize>load<u32>(index) * 12), v128.load(base + <usize>load<u32>(index, 4) * 12));
    const sides = f32x4.add(v128.load(base + <usize>load<u32>(index, 8) * 12), v128.load(base + <usize>load<u32>(index, 12) * 12));
    v128.store(to, f32x4.add(f32x4.mul(first, ends), f32x4.mul(rest, sides)));
    index += 16;
  }
}

/**
 * One smoothing pass: (1 − s) of each point and s of the mean of its neighbours; held points stay. held: one byte per
 * point.
 */
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

/**
 * Adds vector areas of faces at the `target` of each corner, then normalises; (0, 1, 0) where there is no area. out:
 * f32 ×4 per vertex, zeroed by the caller.
 */
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
