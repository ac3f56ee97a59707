import { choice, vector } from '../declare/params';
import type { Hit, Triple } from './kind';

const spaces = [
  { value: 'form', title: 'Form', help: 'Goes along with the form, and is the same on every copy.' },
  { value: 'room', title: 'Room', help: 'Stands in the room; forms and copies move through it.' },
] as const;

/** The space that a pattern lies in. */
export const spaceParam = choice('Lies in', 'form', spaces, 'Goes with the form, or stands in the room.');

/** Whether a pattern is read at every point, or once per copy. */
export const measuredParam = choice(
  'Goes by',
  'form',
  [...spaces, { value: 'copy', title: 'Copy', help: 'By the place of each copy as a whole.' }],
  'Places of the form itself, places in the room, or the place of each copy as a whole.',
);

/** The position that a choice of these means. */
export function placeOf<N>(hit: Hit<N>, space: string): Triple<N> {
  return space === 'copy' ? hit.copy.at : space === 'room' ? hit.room : hit.form;
}

export const centreParam = (title: string, help: string) =>
  vector(title, [0, 0, 0], help, { unit: 'm', min: -10_000, max: 10_000, soft: [-3, 3] });

/** The axis of choice. */
export const axisParam = choice(
  'Axis',
  'y',
  [
    { value: 'x', title: 'x' },
    { value: 'y', title: 'y' },
    { value: 'z', title: 'z' },
  ],
  'Along which axis.',
);

/** Coordinates along the axis, and across it. */
export function axes<N>([x, y, z]: Triple<N>, axis: string): { along: N; across: readonly [N, N] } {
  return axis === 'x'
    ? { along: x, across: [y, z] }
    : axis === 'y'
      ? { along: y, across: [z, x] }
      : { along: z, across: [x, y] };
}
