import { number } from '../../declare/params';
import { curvesMesh, pointsOf, polylinesOf } from '../../shape/curves/curves';
import { lengthOf, resampled } from '../../shape/curves/frames';
import { brief, checkFaces, defineStep } from '../step';

/** Spreads points evenly along curves. */
export const even = defineStep({
  kind: 'even',
  title: 'Even points',
  help: 'Spreads points evenly along curves, at a distance from one another.',
  icon: 'even',
  group: 'curve',
  needs: 'curves',
  params: {
    distance: number('Distance', 0.05, 'From point to point, to the nearest whole number of them.', {
      unit: 'm',
      min: 0.0005,
      max: 1000,
      soft: [0.01, 1],
      step: 0.005,
    }),
  },
  summary: (v) => `every ${brief(v.distance)} m`,
  evaluate(v, input) {
    const lines = polylinesOf(input.connectivity).map((l) => ({
      closed: l.closed,
      points: pointsOf(input.positions, l),
    }));
    const counts = lines.map((l) =>
      Math.max(l.closed ? 3 : 2, Math.round(lengthOf(l.points, l.closed) / v.distance) + (l.closed ? 0 : 1)),
    );
    checkFaces(
      counts.reduce((a, b) => a + b, 0),
      'Use a larger distance.',
    );
    return curvesMesh(lines.map((l, i) => ({ closed: l.closed, points: resampled(l.points, l.closed, counts[i]) })));
  },
});
