import { cosTurns, exp, log, PI, sinTurns } from '../base/maths';
import { allocate } from '../base/per-thread';

/**
 * Sheen of fibres, as KHR_materials_sheen defines it (A. Estevez & C. Kulla, “Production Friendly Microfacet Sheen
 * BRDF”, 2017; visibility of N. Neubelt & J. Pettineo, 2013).
 */

const SIZE = 32;
const table = allocate(32 * 32 * 4);

/** Narrower than this it would be a line along the silhouette. */
@inline
function inverseOf(roughness: f32): f32 {
  const r = max<f32>(roughness, 0.07);
  return 1 / (r * r);
}

/** White sheen BRDF, by the cosines of the half vector, of incidence and of view. */
export function evaluateSheen(roughness: f32, h: f32, i: f32, o: f32): f32 {
  const k = inverseOf(roughness);
  const sine = max<f32>(1e-4, 1 - h * h);
  const spread: f32 = ((2 + k) * exp(0.5 * k * log(sine))) / (2 * PI);
  return spread / (4 * (i + o - i * o));
}

/** Tabulates the directional albedo of white sheen. */
export function prepareSheen(): void {
  const steps: f32 = 24;
  for (let r = 0; r < SIZE; r++)
    for (let m = 0; m < SIZE; m++) {
      const rough = <f32>r / <f32>(SIZE - 1);
      const root = <f32>m / <f32>(SIZE - 1);
      const o = max<f32>(0.0002, root * root);
      const across = sqrt<f32>(1 - o * o);
      let sum: f32 = 0;
      for (let i = 0; i < <i32>steps; i++)
        for (let j = 0; j < <i32>steps; j++) {
          // Uniform over the hemisphere with elevations squared: most of the light comes from low angles.
          const u = (<f32>i + 0.5) / steps;
          const z = u * u;
          const flat = sqrt<f32>(1 - z * z);
          const turn: f32 = (<f32>j + 0.5) / (2 * steps);
          const x = flat * cosTurns(turn) + across;
          const y = flat * sinTurns(turn);
          const w = z + o;
          const h = w / sqrt<f32>(x * x + y * y + w * w);
          sum += evaluateSheen(rough, h, z, o) * z * 2 * u;
        }
      store<f32>(table + ((r * SIZE + m) << 2), min<f32>(1, (2 * PI * sum) / <f32>(steps * steps)));
    }
}

/** Directional albedo of white sheen. */
export function sheenAlbedo(roughness: f32, o: f32): f32 {
  const x = min<f32>(max<f32>(roughness, 0), 1) * <f32>(SIZE - 1);
  const y = sqrt<f32>(min<f32>(max<f32>(o, 0), 1)) * <f32>(SIZE - 1);
  const i = min(SIZE - 2, <i32>x);
  const j = min(SIZE - 2, <i32>y);
  const u = x - <f32>i;
  const v = y - <f32>j;
  const at = table + ((i * SIZE + j) << 2);
  const down = at + (SIZE << 2);
  return (
    (1 - u) * ((1 - v) * load<f32>(at) + v * load<f32>(at, 4)) + u * ((1 - v) * load<f32>(down) + v * load<f32>(down, 4))
  );
}
