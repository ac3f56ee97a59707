import * as hit from './intersect';

/**
 * Traces single rays, for tests and benchmarks: origin and direction, 6 numbers each; distances, −1 for a miss, and
 * behind them instance and triangle of each hit.
 */
export function trace(rays: usize, count: i32, far: usize, any: bool): void {
  let which = far + (<usize>count << 2);
  for (let i = 0; i < count; i++, rays += 24, far += 4, which += 8) {
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
    store<f32>(far, found ? hit.hitT : -1);
    store<i32>(which, found ? hit.hitCopy : -1);
    store<i32>(which, found ? hit.hitTriangle : -1, 4);
  }
}
