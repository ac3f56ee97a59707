import { choice, number } from '../../declare/params';
import { decimated, decimationLoaded, loadDecimation } from '../../shape/decimate';
import { brief, defineStep, StepProblem } from '../step';

/** Fewer triangles for the same form. */
export const decimate = defineStep({
  kind: 'decimate',
  title: 'Decimate',
  help: 'Reduces the number of triangles and keeps most where the form bends; for heavy forms while you work.',
  icon: 'decimate',
  group: 'detail',
  copiesAs: 'one',
  needs: 'faces',
  reads: { detail: true },
  load: loadDecimation,
  loaded: decimationLoaded,
  params: {
    share: number('Keep', 25, 'Share of the triangles that stays.', {
      unit: '%',
      min: 0.1,
      max: 100,
      soft: [1, 100],
      step: 1,
    }),
    at: choice(
      'At',
      'draft',
      [
        { value: 'draft', title: 'Draft only' },
        { value: 'both', title: 'Draft and final' },
      ],
      'At which detail it works.',
    ),
  },
  summary: (v) => `${brief(v.share)} %${v.at === 'draft' ? ' at draft' : ''}`,
  evaluate(v, input, { detail }) {
    if (v.share === 100 || (v.at === 'draft' && detail === 'final')) return input;
    if (!decimationLoaded()) throw new StepProblem('The library for decimation is still on its way.');
    return decimated(input, v.share / 100);
  },
});
