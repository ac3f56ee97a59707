import { checkCost } from '../allowance';
import { number, seed, vector } from '../../declare/params';
import { surfaceNets } from '../../shape/surface-nets';
import { sample, seriesFor } from '../../time/motions/wander';
import { brief, defineStep } from '../step';

/** Balls that wander on closed paths and merge where they meet. */
export const drops = defineStep({
  kind: 'drops',
  title: 'Drops',
  help: 'Balls that wander, melt together and part again.',
  icon: 'drops',
  group: 'form',
  params: {
    count: number('Drops', 7, 'How many.', { min: 1, max: 60, soft: [1, 20], integer: true, moves: false }),
    radius: number('Radius', 0.5, 'Of a drop on its own.', { unit: 'm', min: 0.01, max: 100, soft: [0.1, 2] }),
    variety: number('Variety', 45, 'How much their sizes differ.', {
      unit: '%',
      min: 0,
      max: 95,
      soft: [0, 90],
      step: 1,
    }),
    reach: vector('Reach', [1.5, 1.2, 1.5], 'How far they wander along x, y and z.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 4],
      moves: false,
    }),
    melt: number('Melts', 35, 'How far apart they begin to merge.', {
      unit: '%',
      min: 1,
      max: 100,
      soft: [5, 90],
      step: 1,
    }),
    rate: number('Rate', 1.5, 'About how many swings each makes in a loop. It always closes.', {
      unit: '/loop',
      min: 0.25,
      max: 24,
      soft: [0.25, 6],
      step: 0.25,
      moves: false,
    }),
    seed: seed('Seed', 1, 'A different number gives other ways.', 'chance', { moves: false }),
    cells: number('Cells', 56, 'Cells of the grid from side to side: more is finer.', {
      min: 8,
      max: 220,
      soft: [16, 120],
      integer: true,
    }),
  },
  summary: (v) => `${v.count} of ${brief(v.radius)} m`,
  reads: { clock: true },
  evaluate(v, _input, { clock }) {
    const balls = Array.from({ length: v.count }, (_, i) => {
      const place = [0, 1, 2].map(
        (k) => v.reach[k] * (sample(seriesFor(v.rate, 1, v.seed * 977 + i * 3 + k), clock).value - 0.5),
      );
      // A number in 0…1 for each ball by the golden ratio, so that sizes are spread evenly.
      const own = (i * 0.61803398875 + 0.31) % 1;
      return { place, radius: v.radius * (1 - (v.variety / 100) * own) };
    });
    // Smooth union: −s·ln Σ e^(−dᵢ/s), a smooth minimum of the distances.
    const s = Math.max(1e-3, 0.6 * v.radius * (v.melt / 100));
    const field = (x: number, y: number, z: number) => {
      let sum = 0;
      for (const { place, radius } of balls) {
        const d = Math.sqrt((x - place[0]) ** 2 + (y - place[1]) ** 2 + (z - place[2]) ** 2) - radius;
        sum += Math.exp(-d / s);
      }
      return -s * Math.log(sum + 1e-300);
    };
    const swell = s * Math.log(v.count) + v.radius;
    const low = [0, 1, 2].map((k) => Math.min(...balls.map((b) => b.place[k])) - swell * 1.1);
    const high = [0, 1, 2].map((k) => Math.max(...balls.map((b) => b.place[k])) + swell * 1.1);
    checkCost('distances', v.cells ** 3 * v.count, 'Use fewer cells or drops, or have it worked out.');
    return surfaceNets(field, low, high, v.cells);
  },
});
