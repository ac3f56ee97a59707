import { choice, number } from '../../declare/params';
import { pointsOf, polylinesOf } from '../../shape/curves/curves';
import { outlinePoints } from '../../shape/outline';
import { Sweeper } from '../../shape/curves/sweep';
import { brief, checkFaces, defineStep } from '../step';

type Profile = 'round' | 'square' | 'star' | 'flat';

/** The profile of a wire of radius 1, with about as many corners as it has sides. */
function profileOf(profile: Profile, sides: number, flatness: number): [number, number][] {
  const plain = { points: 4, inner: 45, exponent: 2, rounding: 0 };
  if (profile === 'square')
    return outlinePoints({ ...plain, outline: 'polygon' }, 4 * Math.max(1, Math.round(sides / 4))) as [
      number,
      number,
    ][];
  if (profile === 'star')
    return outlinePoints({ ...plain, outline: 'star', points: 5 }, 10 * Math.max(1, Math.round(sides / 10))) as [
      number,
      number,
    ][];
  const circle = outlinePoints({ ...plain, outline: 'circle' }, sides);
  return profile === 'round' ? (circle as [number, number][]) : circle.map(([x, y]) => [x, (y * flatness) / 100]);
}

/** Draws every curve as a wire from root to tip. */
export const wires = defineStep({
  kind: 'wires',
  title: 'Wires',
  help: 'Draws curves as wires, round or with another profile, thick at the root and thin at the tip or even.',
  icon: 'wires',
  group: 'curve',
  needs: 'curves',
  params: {
    root: number('Root radius', 0.03, 'Where a curve begins.', {
      unit: 'm',
      min: 0,
      max: 100,
      soft: [0, 0.3],
      step: 0.005,
    }),
    tip: number('Tip radius', 0.03, 'Where it ends; on a closed curve half way round.', {
      unit: 'm',
      min: 0,
      max: 100,
      soft: [0, 0.3],
      step: 0.005,
    }),
    profile: choice(
      'Profile',
      'round',
      [
        { value: 'round', title: 'Round' },
        { value: 'square', title: 'Square' },
        { value: 'star', title: 'Star' },
        { value: 'flat', title: 'Flat' },
      ],
      'What a wire looks like cut through.',
    ),
    flatness: number('Flatness', 20, 'Height of a flat wire, as a share of its width.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [2, 100],
      step: 1,
      shownWhen: { param: 'profile', is: ['flat'] },
    }),
    sides: number('Sides', 8, 'Faces round a wire.', { min: 3, max: 64, soft: [3, 24], integer: true }),
  },
  summary: (v) => `${brief(v.root)} to ${brief(v.tip)} m`,
  evaluate(v, input) {
    const lines = polylinesOf(input.connectivity);
    checkFaces((input.connectivity.curves?.points.length ?? 0) * v.sides, 'Use fewer sides, or fewer curves.');
    const profile = profileOf(v.profile, v.sides, v.flatness);
    const sweeper = new Sweeper();
    for (const line of lines)
      sweeper.add(pointsOf(input.positions, line), line.closed, {
        profile,
        profileClosed: true,
        // More than 12 sides are a curve, fewer are corners; round wires are always shaded smooth.
        smooth: v.profile === 'round' || v.profile === 'flat',
        scale: (s) => v.root + (v.tip - v.root) * (line.closed ? 0.5 - 0.5 * Math.cos(2 * Math.PI * s) : s),
        turn: () => 0,
        caps: true,
      });
    return sweeper.finish();
  },
});
