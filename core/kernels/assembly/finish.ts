/**
 * Applied in place after the sum of octaves: shaped values times contrast, plus brightness, clamped to low … high.
 * bends: 1 absolute, 2 inverted.
 */
export function finish(values: usize, count: u32, bends: i32, contrast: f32, brightness: f32, low: f32, high: f32): void {
  const sign = f32x4.splat(bends & 2 ? -contrast : contrast), plus = f32x4.splat(brightness), least = f32x4.splat(low), most = f32x4.splat(high);
  const end = values + (<usize>count << 2);
  for (; values < end; values += 16) {
    let v = v128.load(values);
    if (bends & 1) v = f32x4.abs(v);
    v128.store(values, f32x4.min(f32x4.max(f32x4.add(f32x4.mul(v, sign), plus), least), most));
  }
}
