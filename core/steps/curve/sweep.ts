import { choice, number, ribbon } from '../../declare/params';
import { pointsOf, polylinesOf } from '../../shape/curves/curves';
import { resampled } from '../../shape/curves/frames';
import { flatProfile, type Point2 } from '../../shape/curves/profile';
import { Sweeper } from '../../shape/curves/sweep';
import { outlineCount, outlinePoints } from '../../shape/outline';
import type { Mesh } from '../../shape/mesh';
import { brief, checkFaces, defineStep, StepProblem } from '../step';

/** A profile swept along curves, rotated and scaled on the way. */
export const sweep = defineStep({
  kind: 'sweep',
  title: 'Sweep',
  help: 'Carries a profile along curves, with size and twist on its way; round a closed curve the twist joins.',
  icon: 'sweep',
  group: 'curve',
  needs: 'curves',
  params: {
    profile: choice(
      'Profile',
      'square',
      [
        { value: 'square', title: 'Square' },
        { value: 'circle', title: 'Circle' },
        { value: 'polygon', title: 'Polygon' },
        { value: 'star', title: 'Star' },
        { value: 'band', title: 'Band' },
        { value: 'ribbon', title: 'Another ribbon' },
      ],
      'What is carried along.',
    ),
    other: ribbon('Ribbon', 'Its first curve is the profile.', {
      serves: true,
      shownWhen: { param: 'profile', is: ['ribbon'] },
    }),
    width: number('Width', 0.3, 'From side to side of the profile.', { unit: 'm', min: 0, max: 1000, soft: [0, 2] }),
    flatness: number('Flatness', 100, 'Its height as a share of its width.', {
      unit: '%',
      min: 0,
      max: 400,
      soft: [5, 200],
      step: 1,
    }),
    points: number('Points', 5, 'Corners of a polygon, tips of a star.', {
      min: 3,
      max: 60,
      soft: [3, 12],
      integer: true,
      shownWhen: { param: 'profile', is: ['polygon', 'star'] },
    }),
    inner: number('Inner', 50, 'Radius of the notches of a star, as a share of that of its tips.', {
      unit: '%',
      min: 1,
      max: 100,
      soft: [10, 100],
      step: 1,
      shownWhen: { param: 'profile', is: ['star'] },
    }),
    round: number('Along a side', 3, 'Faces along each side of the profile.', {
      min: 1,
      max: 200,
      soft: [1, 16],
      integer: true,
      shownWhen: { param: 'profile', is: ['square', 'circle', 'polygon', 'star', 'band'] },
    }),
    twist: number(
      'Twist',
      0,
      'Turns of the profile from beginning to end; round a closed curve it goes to the nearest that joins.',
      { unit: 'turns', min: -100, max: 100, soft: [-4, 4], step: 0.05 },
    ),
    start: number('Turned', 0, 'Turns the profile about its way.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
    }),
    tip: number('Tip', 100, 'Size at the far end; on a closed curve half way round.', {
      unit: '%',
      min: 0,
      max: 1000,
      soft: [0, 200],
      step: 1,
    }),
    along: number('Rings', 240, 'Faces along each curve, spread evenly.', {
      min: 2,
      max: 5000,
      soft: [12, 600],
      integer: true,
    }),
  },
  summary: (v) => `${v.profile} of ${brief(v.width)} m, ${brief(v.twist)} turns`,
  evaluate(v, input, context) {
    if (input.connectivity.vertexCount === 0) return input;
    const shape = profileOf(v, context.other?.('other'));
    const half = v.width / 2;
    const profile = shape.points.map(([x, y]): Point2 => [x * half, (y * half * v.flatness) / 100]);
    const sweeper = new Sweeper();
    const lines = polylinesOf(input.connectivity);
    checkFaces(lines.length * v.along * profile.length, 'Use fewer rings, or fewer faces along a side.');
    for (const line of lines) {
      const closed = line.closed;
      // On a closed curve, only turns after which the profile looks the same meet their beginning.
      const turns = closed ? Math.round(v.twist * shape.symmetry) / shape.symmetry : v.twist;
      const shift = closed ? Math.round(turns * profile.length) : 0;
      const from = (v.start * Math.PI) / 180;
      const tip = v.tip / 100;
      sweeper.add(resampled(pointsOf(input.positions, line), closed, closed ? v.along : v.along + 1), closed, {
        profile,
        profileClosed: shape.closed,
        scale: (s) => 1 + (tip - 1) * (closed ? 0.5 - 0.5 * Math.cos(2 * Math.PI * s) : s),
        turn: (s) => from + 2 * Math.PI * turns * s,
        shift,
        caps: true,
      });
    }
    return sweeper.finish();
  },
});

interface Profile {
  readonly points: readonly Point2[];
  readonly closed: boolean;
  /** How often it looks the same in a full turn. */
  readonly symmetry: number;
}

function profileOf(
  v: { profile: string; points: number; inner: number; round: number; flatness: number },
  other: Mesh | undefined,
): Profile {
  const even = v.flatness === 100;
  const usual = { exponent: 2, rounding: 0, inner: v.inner };
  switch (v.profile) {
    case 'circle':
      return {
        points: outlinePoints({ ...usual, outline: 'circle', points: 4 }, 4 * v.round),
        closed: true,
        symmetry: even ? 4 * v.round : 2,
      };
    case 'polygon':
    case 'star': {
      const o = { ...usual, outline: v.profile, points: v.points };
      return {
        points: outlinePoints(o, outlineCount(o, v.round)),
        closed: true,
        symmetry: even ? v.points : v.points % 2 === 0 ? 2 : 1,
      };
    }
    case 'band':
      return {
        points: Array.from({ length: v.round + 1 }, (_, i) => [(2 * i) / v.round - 1, 0]),
        closed: false,
        symmetry: 1,
      };
    case 'ribbon': {
      const line = other && polylinesOf(other.connectivity)[0];
      if (!other || !line)
        throw new StepProblem(
          'Sweep has no profile: choose a ribbon that is a curve, such as an outline, or another profile.',
        );
      return { points: flatProfile(pointsOf(other.positions, line)), closed: line.closed, symmetry: 1 };
    }
    default: {
      const side = Array.from({ length: v.round }, (_, i) => (2 * i) / v.round - 1);
      const points: Point2[] = [
        ...side.map((t): Point2 => [t, -1]),
        ...side.map((t): Point2 => [1, t]),
        ...side.map((t): Point2 => [-t, 1]),
        ...side.map((t): Point2 => [-1, -t]),
      ];
      return { points, closed: true, symmetry: even ? 4 : 2 };
    }
  }
}
