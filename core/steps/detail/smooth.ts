import { number, toggle } from '../../declare/params';
import { laplacianSmooth, taubinSmooth } from '../../shape/laplacian';
import { limited, regionMoves, regionParams } from '../deform/region';
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
    strength: number('Strength', 50, 'How far towards the middle of the neighbours each time.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    holdBorders: toggle('Hold borders', true, 'Leave points on an open border where they are.'),
    keepVolume: toggle('Keep volume', false, 'Takes roughness away without shrinking the form.'),
    ...regionParams,
  },
  summary: (v) => `${v.iterations} × ${brief(v.strength)} %`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const out = (v.keepVolume ? taubinSmooth : laplacianSmooth)(input, v.iterations, v.strength / 100, v.holdBorders);
    return { connectivity: input.connectivity, positions: limited(v, input, out.positions, context) };
  },
});
