import type { Vec3 } from '../maths/vec3';

type Values = Readonly<Record<string, unknown>>;

/**
 * How a value is dragged in the picture, declared with the value itself, for steps and scene items alike.
 *
 * - `'place'`: a vector in metres that is a point, dragged freely.
 * - `{ from }`: a distance in metres from the point that another value is.
 * - `{ about, turn, axis }`: an angle in degrees on a ring about an axis through a point, whose frame another value
 * rotates.
 * - `'points'`: a list of points, each dragged on its own.
 * - `'grid'`: a list of offsets of the points of a grid of `cells` each way over the form or a box.
 */
export type HandleDoc =
  | 'place'
  | 'points'
  | 'grid'
  | { readonly from: string }
  | {
      readonly about: string;
      /** The value that rotates the axis, in degrees about x, y and z. */
      readonly turn?: string;
      /** The axis for the current values; a unit vector. */
      readonly axis: (values: Values) => Vec3;
    };
