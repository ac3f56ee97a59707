import { hexToLight } from '../../maths/srgb';
import type { SceneAt } from '../../evaluate/picture-at';

/** Offsets of air and floor; see core/trace/assembly/lights/atmosphere.ts. */
const [FOG, HAZE, FLOOR, NUMBERS] = [0, 8, 20, 32];
/** Blur of a fully rough floor reflection, in metres per metre of distance. */
const SPREAD = 0.7;

/** Bounding sphere of a scene. */
export interface BoundingSphere {
  readonly centre: readonly number[];
  readonly radius: number;
}

/** Bounding sphere of boxes, lowest and highest x, y, z of each; a metre around the origin if there are none. */
export function boundingSphereOf(boxes: readonly (readonly number[])[]): BoundingSphere {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (const b of boxes)
    for (let k = 0; k < 3; k++) {
      low[k] = Math.min(low[k], b[k]);
      high[k] = Math.max(high[k], b[k + 3]);
    }
  if (low[0] > high[0]) return { centre: [0, 0, 0], radius: 1 };
  return {
    centre: low.map((x, k) => (x + high[k]) / 2),
    radius: Math.hypot(...low.map((x, k) => high[k] - x)) / 2,
  };
}

/** Packs air and floor for the tracer. */
export function packAtmosphere(
  { air, ground }: Pick<SceneAt, 'air' | 'ground'>,
  { centre, radius }: BoundingSphere,
): Float32Array {
  const out = new Float32Array(NUMBERS);
  const fog = air.find((a) => a.type === 'fog');
  if (fog) out.set([1, ...hexToLight(fog.colour), fog.extinction, fog.begins, fog.height, fog.ground], FOG);
  const haze = air.find((a) => a.type === 'haze');
  if (haze)
    out.set(
      [
        1,
        ...hexToLight(haze.colour),
        haze.extinction,
        haze.forward,
        haze.height,
        haze.ground,
        ...centre,
        Math.max(haze.reach, radius),
      ],
      HAZE,
    );
  const floor = ground.find((g) => g.type === 'catcher');
  if (floor)
    out.set(
      [
        1,
        floor.height,
        floor.strength,
        ...hexToLight(floor.colour),
        floor.reach,
        floor.mirror,
        SPREAD * floor.rough * floor.rough,
      ],
      FLOOR,
    );
  return out;
}
