import * as hit from './intersect';

/** Rays by themselves, for tests and benchmarks: place and direction, 6 numbers each; how far, −1 for nothing. */
export function trace(rays: usize, count: i32, out: usize, any: bool): void {
  for (let i = 0; i < count; i++, rays += 24, out += 12) {
    const found = hit.intersect(
      load<f32>(rays),
      load<f32>(rays, 4),
      load<f32>(rays, 8),
      load<f32>(rays, 12),
      load<f32>(rays, 16),
      load<f32>(rays, 20),
      0,
      Infinity,
      any,
    );
    store<f32>(out, found ? hit.hitT : -1);
    store<i32>(out, found ? hit.hitCopy : -1, 4);
    store<i32>(out, found ? hit.hitTriangle : -1, 8);
  }
}
