import { number } from '../../declare/params';
import { pointsOf, polylinesOf } from '../../shape/curves/curves';
import { outlinePoints } from '../../shape/outline';
import { Sweeper } from '../../shape/curves/sweep';
import { brief, checkFaces, defineStep } from '../step';

/** Draws every curve as a round wire, from a root to a tip. */
export const wires = defineStep({
  kind: 'wires',
  title: 'Wires',
  help: 'Draws curves as round wires, thick at the root and thin at the tip or even.',
  icon: 'wires',
  group: 'curve',
  needs: 'curves',
  params: {
    root: number('Root radius', 0.03, 'Where a curve begins.', { unit: 'm', min: 0, max: 100, soft: [0, 0.3], step: 0.005 }),
    tip: number('Tip radius', 0.03, 'Where it ends; on a closed curve half way round.', { unit: 'm', min: 0, max: 100, soft: [0, 0.3], step: 0.005 }),
    sides: number('Sides', 8, 'Faces round a wire.', { min: 3, max: 64, soft: [3, 24], integer: true }),
  },
  summary: (v) => `${brief(v.root)} to ${brief(v.tip)} m`,
  evaluate(v, input) {
    const lines = polylinesOf(input.connectivity);
    checkFaces((input.connectivity.curves?.points.length ?? 0) * v.sides, 'Use fewer sides, or fewer curves.');
    // More sides than 12 are a bend, fewer are corners; wires are always shaded round.
    const profile = outlinePoints({ outline: 'circle', points: 4, inner: 50, exponent: 2, rounding: 0 }, v.sides);
    const sweeper = new Sweeper();
    for (const line of lines)
      sweeper.add(pointsOf(input.positions, line), line.closed, {
        profile,
        profileClosed: true,
        smooth: true,
        scale: (s) => v.root + (v.tip - v.root) * (line.closed ? 0.5 - 0.5 * Math.cos(2 * Math.PI * s) : s),
        turn: () => 0,
        caps: true,
      });
    return sweeper.finish();
  },
});
