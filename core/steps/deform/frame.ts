import { choice, number, toggle, vector, type Evaluated } from '../../declare/params';
import { matrixOf, turnXYZ } from '../../shape/quaternion';

/** The frame a step works in: moved and turned, also over the loop. */
export const pivotParams = {
  pivot: vector('Pivot', [0, 0, 0], 'The point it works about.', { unit: 'm', min: -10_000, max: 10_000, soft: [-3, 3], more: true }),
  pivotTurn: vector('Pivot turn', [0, 0, 0], 'Turns the frame it works in, about x, then y, then z; not the form.', { unit: '°', cyclic: 360, min: -36_000, max: 36_000, soft: [-180, 180], step: 1, more: true }),
} as const;

const INSIDE = ['ball', 'box', 'slab', 'rod'];

/** Where in space a step acts, and how softly that ends. */
export const regionParams = {
  region: choice(
    'Region',
    'all',
    [
      { value: 'all', title: 'Everywhere' },
      { value: 'ball', title: 'Ball' },
      { value: 'box', title: 'Box' },
      { value: 'slab', title: 'Slab' },
      { value: 'rod', title: 'Rod' },
    ],
    'A shape in space inside which it acts. A slab lies flat, a rod stands upright.',
    { more: true },
  ),
  regionAt: vector('Region at', [0, 0, 0], 'Its middle.', { unit: 'm', min: -10_000, max: 10_000, soft: [-3, 3], more: true, shownWhen: { param: 'region', is: INSIDE } }),
  regionSize: number('Region size', 0.8, 'Radius, or half the edge or thickness.', { unit: 'm', min: 0, max: 10_000, soft: [0, 3], more: true, shownWhen: { param: 'region', is: INSIDE } }),
  soft: number('Soft edge', 0.5, 'Width of its border, over which the strength falls to nothing.', { unit: 'm', min: 0, max: 10_000, soft: [0, 2], more: true, shownWhen: { param: 'region', is: INSIDE } }),
  outside: toggle('Outside', false, 'Acts outside the shape and not inside it.', { more: true, shownWhen: { param: 'region', is: INSIDE } }),
} as const;

type Pivot = Evaluated<typeof pivotParams>;
type Region = Evaluated<typeof regionParams>;

/** Strength 0…1 of a region at a place; null where it acts everywhere. */
export function regionWeight(v: Region): ((x: number, y: number, z: number) => number) | null {
  if (v.region === 'all') return null;
  const [cx, cy, cz] = v.regionAt;
  const { regionSize: size, soft, outside } = v;
  const distance: Record<string, (x: number, y: number, z: number) => number> = {
    ball: (x, y, z) => Math.hypot(x, y, z) - size,
    box: (x, y, z) => Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) - size,
    slab: (_x, y) => Math.abs(y) - size,
    rod: (x, _y, z) => Math.hypot(x, z) - size,
  };
  const from = distance[v.region];
  return (x, y, z) => {
    const d = from(x - cx, y - cy, z - cz);
    const t = soft > 0 ? Math.max(0, Math.min(1, 1 - d / soft)) : d <= 0 ? 1 : 0;
    const w = t * t * (3 - 2 * t);
    return outside ? 1 - w : w;
  };
}

/** Positions moved only as far as a region lets them. */
export function limited(v: Region, from: Float32Array, to: Float32Array): Float32Array {
  const weight = regionWeight(v);
  if (!weight) return to;
  const out = new Float32Array(from.length);
  for (let i = 0; i < from.length; i += 3) {
    const w = weight(from[i], from[i + 1], from[i + 2]);
    for (let k = 0; k < 3; k++) out[i + k] = from[i + k] + w * (to[i + k] - from[i + k]);
  }
  return out;
}

/** Does something to positions as they are seen from a pivot, and brings them back. */
export function inPivot(v: Pivot, positions: Float32Array, change: (local: Float32Array) => Float32Array): Float32Array {
  const { pivot: p, pivotTurn: t } = v;
  if (p[0] === 0 && p[1] === 0 && p[2] === 0 && t[0] === 0 && t[1] === 0 && t[2] === 0) return change(positions);
  const m = matrixOf(turnXYZ(t));
  const local = new Float32Array(positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [positions[i] - p[0], positions[i + 1] - p[1], positions[i + 2] - p[2]];
    local[i] = m[0] * x + m[3] * y + m[6] * z;
    local[i + 1] = m[1] * x + m[4] * y + m[7] * z;
    local[i + 2] = m[2] * x + m[5] * y + m[8] * z;
  }
  const moved = change(local);
  const out = new Float32Array(positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [moved[i], moved[i + 1], moved[i + 2]];
    out[i] = m[0] * x + m[1] * y + m[2] * z + p[0];
    out[i + 1] = m[3] * x + m[4] * y + m[5] * z + p[1];
    out[i + 2] = m[6] * x + m[7] * y + m[8] * z + p[2];
  }
  return out;
}

export const AXES = { x: 0, y: 1, z: 2 } as const;
export type Axis = keyof typeof AXES;
export const axisOptions = [{ value: 'x', title: 'X' }, { value: 'y', title: 'Y' }, { value: 'z', title: 'Z' }] as const;
