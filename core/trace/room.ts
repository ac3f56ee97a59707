import { hexToLight } from '../maths/srgb';
import type { SceneAt } from '../evaluate/picture-at';

/** Numbers of what fills a room and lies under everything; see core/trace/assembly/room.ts. */
const [FOG, HAZE, FLOOR, NUMBERS] = [0, 8, 20, 32];
/** How far a mirror that is quite rough spreads what it shows, in metres for each metre it is away. */
const SPREAD = 0.7;

/** Middle and radius of all that stands there. */
export interface Extent {
  readonly centre: readonly number[];
  readonly radius: number;
}

/** Of boxes, lowest and highest x, y, z of each; a metre about the middle where there are none. */
export function extentOf(boxes: readonly (readonly number[])[]): Extent {
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

/** Air and floor as the tracer takes them. */
export function roomBlock({ air, ground }: Pick<SceneAt, 'air' | 'ground'>, { centre, radius }: Extent): Float32Array {
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
