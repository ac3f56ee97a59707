import { vector, type Evaluated } from '../../declare/params';
import { boundsOf } from '../../shape/measure';
import { matrixOf, turnXYZ } from '../../maths/quaternion';

/** The frame that a step works in: its position and rotation, which may move. */
export const pivotParams = {
  pivot: vector('Pivot', [0, 0, 0], 'The point it works about.', {
    unit: 'm',
    min: -10_000,
    max: 10_000,
    soft: [-3, 3],
    more: true,
    handle: 'place',
  }),
  pivotTurn: vector('Pivot turn', [0, 0, 0], 'Turns the frame it works in, about x, then y, then z; not the form.', {
    unit: '°',
    cyclic: 360,
    min: -36_000,
    max: 36_000,
    soft: [-180, 180],
    step: 1,
    more: true,
  }),
} as const;

type Pivot = Evaluated<typeof pivotParams>;

/** How far a form extends along an axis of a pivot's frame, in metres. */
export interface Reach {
  readonly low: number;
  readonly high: number;
}

/**
 * Least thickness of a form, as a fraction of its largest extent, so that nothing rotates infinitely fast as a frame
 * turns through a flat form.
 */
const THINNEST = 0.1;

/**
 * How far a form extends along each axis of a rotated frame: the extent of the ellipsoid inscribed in its bounding box,
 * √Σ(dₖ·Lₖ)² for a unit vector d and extents L. Along the world axes that equals the box, and in between it changes
 * smoothly as the frame turns. The true extent does not: it has a kink whenever another corner becomes the farthest.
 */
function reachIn(v: Pivot, positions: Float32Array): (axis: 0 | 1 | 2) => Reach | null {
  const bounds = boundsOf(positions);
  if (!bounds) return () => null;
  const m = matrixOf(turnXYZ(v.pivotTurn));
  const size = bounds.max.map((x, k) => x - bounds.min[k]);
  const least = THINNEST * Math.max(...size);
  return (axis) => {
    const d = [m[axis], m[axis + 3], m[axis + 6]];
    // Along a world axis the value is exact.
    const along = d.indexOf(1);
    if (along >= 0 && size[along] >= least)
      return { low: bounds.min[along] - v.pivot[along], high: bounds.max[along] - v.pivot[along] };
    const half = Math.hypot(...d.map((x, k) => x * Math.max(least, size[k]))) / 2;
    const middle = d.reduce((sum, x, k) => sum + x * ((bounds.min[k] + bounds.max[k]) / 2 - v.pivot[k]), 0);
    return { low: middle - half, high: middle + half };
  };
}

/**
 * Transforms positions into a pivot's frame, applies a change, and transforms them back.
 *
 * @param change receives positions in the pivot's frame, and how far the form extends along its axes
 */
export function inPivot(
  v: Pivot,
  positions: Float32Array,
  change: (local: Float32Array, reach: (axis: 0 | 1 | 2) => Reach | null) => Float32Array,
): Float32Array {
  const { pivot: p, pivotTurn: t } = v;
  const reach = reachIn(v, positions);
  if (p[0] === 0 && p[1] === 0 && p[2] === 0 && t[0] === 0 && t[1] === 0 && t[2] === 0) return change(positions, reach);
  const m = matrixOf(turnXYZ(t));
  const local = new Float32Array(positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [positions[i] - p[0], positions[i + 1] - p[1], positions[i + 2] - p[2]];
    local[i] = m[0] * x + m[3] * y + m[6] * z;
    local[i + 1] = m[1] * x + m[4] * y + m[7] * z;
    local[i + 2] = m[2] * x + m[5] * y + m[8] * z;
  }
  const moved = change(local, reach);
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
export const axisOptions = [
  { value: 'x', title: 'X' },
  { value: 'y', title: 'Y' },
  { value: 'z', title: 'Z' },
] as const;

/** |x| with a rounded corner: the even polynomial of degree four that meets |x| at ±r in value, slope and curvature. */
export function roundedAbs(x: number, r: number): number {
  const a = Math.abs(x);
  if (a >= r) return a;
  const s = (a / r) ** 2;
  return r * (0.375 + s * (0.75 - 0.125 * s));
}
