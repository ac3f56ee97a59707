import type { Vec3 } from '../maths/vec3';

type Values = Readonly<Record<string, unknown>>;

/**
 * How a value is taken hold of in the picture. It is said where the value is declared, for steps and
 * for things of the scene alike.
 *
 * - `'place'`: a vector in metres that is a point, dragged freely.
 * - `{ from }`: a distance in metres from the point that another value is.
 * - `{ about, turn, axis }`: an angle in degrees on a ring about an axis through a point, whose frame
 *   another value turns.
 * - `'points'`: a list of points, each dragged by itself.
 * - `'grid'`: a list of moves from the points of a grid of `cells` each way over the form or a box.
 */
export type HandleDoc =
  | 'place'
  | 'points'
  | 'grid'
  | { readonly from: string }
  | {
      readonly about: string;
      /** The value that turns the axis, in degrees about x, y and z. */
      readonly turn?: string;
      /** The axis, from the values at the moment; a unit vector. */
      readonly axis: (values: Values) => Vec3;
    };
