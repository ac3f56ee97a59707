import { number, toggle } from '../../declare/params';
import { laplacianSmooth } from '../../shape/laplacian';
import { brief, defineStep } from '../step';

/** Laplacian smoothing with equal weights. */
export const smooth = defineStep({
  kind: 'smooth',
  title: 'Smooth',
  help: 'Draws every point towards its neighbours.',
  icon: 'smooth',
  group: 'detail',
  params: {
    iterations: number('Iterations', 4, 'How many times over.', { min: 0, max: 500, soft: [0, 40], integer: true }),
    strength: number('Strength', 50, 'How far towards the middle of the neighbours each time.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 }),
    holdBorders: toggle('Hold borders', true, 'Leave points on an open border where they are.'),
  },
  summary: (v) => `${v.iterations} × ${brief(v.strength)} %`,
  evaluate: (v, input) => laplacianSmooth(input, v.iterations, v.strength / 100, v.holdBorders),
});
