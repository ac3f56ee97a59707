import { vector, type Evaluated } from '../../declare/params';
import { matrixOf, turnXYZ } from '../../shape/quaternion';

/** The frame a step works in: moved and turned, also over the loop. */
export const pivotParams = {
  pivot: vector('Pivot', [0, 0, 0], 'The point it works about.', { unit: 'm', min: -10_000, max: 10_000, soft: [-3, 3], more: true }),
  pivotTurn: vector('Pivot turn', [0, 0, 0], 'Turns the frame it works in, about x, then y, then z; not the form.', { unit: '°', cyclic: 360, min: -36_000, max: 36_000, soft: [-180, 180], step: 1, more: true }),
} as const;

type Pivot = Evaluated<typeof pivotParams>;

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
