import { choice, number } from '../../declare/params';
import { definePictureEffect } from '../kind';

const level = (title: string, value: number, help: string) =>
  number(title, value, help, { unit: '%', min: -50, max: 150, soft: [0, 100], step: 0.5 });

/**
 * Slopes of a curve through heights at even places that never overshoots: F. N. Fritsch and R. E.
 * Carlson, “Monotone Piecewise Cubic Interpolation”, SIAM J. Numer. Anal. 17 (1980), with harmonic means.
 *
 * @param heights at 0, ¼, ½, ¾ and 1
 * @returns slopes per unit at the same places
 */
export function curveSlopes(heights: readonly number[]): number[] {
  const step = 1 / (heights.length - 1);
  const rise = heights.slice(1).map((h, i) => (h - heights[i]) / step);
  return heights.map((_, i) => {
    if (i === 0) return rise[0];
    if (i === heights.length - 1) return rise[i - 1];
    const [a, b] = [rise[i - 1], rise[i]];
    return a * b <= 0 ? 0 : (2 * a * b) / (a + b);
  });
}

export const levels = definePictureEffect({
  kind: 'levels',
  title: 'Curve',
  help: 'A tone curve through five brightnesses.',
  icon: 'M4 20V4M4 20h16M4 20c5-2 4-7 8-8s4-6 8-8M12 12h.01',
  params: {
    of: choice(
      'Of',
      'all',
      [
        { value: 'all', title: 'All' },
        { value: 'red', title: 'Red' },
        { value: 'green', title: 'Green' },
        { value: 'blue', title: 'Blue' },
      ],
      'All colours, or one of them.',
    ),
    black: level('Black', 0, 'What black becomes.'),
    dark: level('Dark', 25, 'What a brightness of 25 % becomes.'),
    middle: level('Middle', 50, 'What a brightness of 50 % becomes.'),
    light: level('Light', 75, 'What a brightness of 75 % becomes.'),
    white: level('White', 100, 'What white becomes.'),
  },
  at: (v) => {
    const heights = [v.black, v.dark, v.middle, v.light, v.white].map((x) => x / 100);
    const only = { all: [1, 1, 1], red: [1, 0, 0], green: [0, 1, 0], blue: [0, 0, 1] } as const;
    return { type: 'levels', heights, slopes: curveSlopes(heights), of: only[v.of] };
  },
});
