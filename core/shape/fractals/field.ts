import {
  apollonian,
  boxFold,
  mengerSponge,
  powerBulb,
  quaternionJulia,
  roundedLattice,
  type DistanceBound,
} from './distance';

/** A 4 × 4 matrix, column-major. */
type Matrix = readonly number[];

/**
 * A form as a distance bound, carried beside its mesh: renderers that can sphere-trace it show it exactly, everything
 * else uses the mesh. In its own space it is about as large as the unit ball.
 */
export interface DistanceField {
  readonly form: 'box' | 'sponge' | 'bulb' | 'julia' | 'net' | 'lattice';
  /** Four numbers, whose meaning depends on the form; see `boundOf`. Angles in radians. */
  readonly numbers: readonly [number, number, number, number];
  /** How many times space is folded. */
  readonly rounds: number;
  /** The visible part of the form: its centre, and the magnification. */
  readonly middle: readonly [number, number, number];
  readonly zoom: number;
  /** What it is cut by: the unit ball, or the cube inscribed in it. */
  readonly cut: 'ball' | 'cube';
  /** Offset of the surface outwards from the bound's zero. */
  readonly skin: number;
  /** From its own space to that of the shape, in metres. */
  readonly matrix: Matrix;
}

/** Half the edge of the cube inscribed in the unit ball. */
export const CUBE = 1 / Math.sqrt(3);
/** Size of a Julia set, in unit balls. */
export const JULIA_SIZE = 1.5;
/** Farther than this outside the cut, only the cut is evaluated. */
export const NEAR = 0.1;

/** The distance bound of a form, before it is cut and offset. */
function boundOf({ form, numbers: [a, b, c, d], rounds }: DistanceField): DistanceBound {
  switch (form) {
    case 'box':
      return boxFold(a, b, rounds);
    case 'sponge':
      return mengerSponge(a, b, rounds);
    case 'bulb':
      return powerBulb(a, b, rounds);
    case 'julia': {
      const bound = quaternionJulia([a, b, c, d], rounds);
      return (x, y, z) => bound(JULIA_SIZE * x, JULIA_SIZE * y, JULIA_SIZE * z) / JULIA_SIZE;
    }
    case 'net':
      return apollonian(a, b, rounds);
    case 'lattice':
      return roundedLattice(a, b, c, d);
  }
}

/** At most the distance from a position in the form's own space to the cut and offset form. */
export function fieldBound(field: DistanceField): DistanceBound {
  const bound = boundOf(field);
  const { cut, skin, zoom } = field;
  const [mx, my, mz] = field.middle;
  return (x, y, z) => {
    const outer =
      cut === 'ball' ? Math.sqrt(x * x + y * y + z * z) - 1 : Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) - CUBE;
    return outer > NEAR ? outer : Math.max(outer, zoom * bound(x / zoom + mx, y / zoom + my, z / zoom + mz) - skin);
  };
}

/**
 * A form after its shape was transformed by p ↦ M·p + shift; undefined if nothing of it remains visible.
 *
 * @param linear M, 9 numbers, row-major
 */
export function movedField(
  field: DistanceField | undefined,
  linear: readonly number[],
  shift: readonly number[],
): DistanceField | undefined {
  if (!field) return undefined;
  const from = field.matrix;
  const matrix = Array.from({ length: 16 }, (_, i) => {
    const [column, row] = [i >> 2, i & 3];
    if (row === 3) return column === 3 ? 1 : 0;
    let sum = column === 3 ? shift[row] : 0;
    for (let k = 0; k < 3; k++) sum += linear[3 * row + k] * from[4 * column + k];
    return sum;
  });
  const [a, b, c, , d, e, f, , g, h, i] = matrix;
  const volume = a * (e * i - f * h) - d * (b * i - c * h) + g * (b * f - c * e);
  return Math.abs(volume) > 1e-18 ? { ...field, matrix } : undefined;
}
