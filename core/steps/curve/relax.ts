import { choice, number, toggle } from '../../declare/params';
import { relaxed } from '../../shape/curves/relax';
import { limited, regionMoves, regionParams } from '../deform/region';
import { brief, defineStep } from '../step';

/** Relaxes a net of curves or edges, as if made of rubber bands or of threads of one length. */
export const relax = defineStep({
  kind: 'relax',
  title: 'Relax',
  help: 'Lets a net of curves or edges settle, as rubber bands do or as threads of even length.',
  icon: 'relax',
  group: 'curve',
  params: {
    passes: number('Passes', 20, 'How many times over.', { min: 0, max: 1000, soft: [0, 100], integer: true }),
    strength: number('Strength', 60, 'How far towards its place each point goes at a time.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    towards: choice(
      'Towards',
      'middle',
      [
        { value: 'middle', title: 'Middle' },
        { value: 'length', title: 'One length' },
      ],
      'Each point goes to the middle of its neighbours, long edges pulling harder, or edges get one length.',
    ),
    length: number('Length', 100, 'Of all edges, as a share of what they have on average.', {
      unit: '%',
      min: 0,
      max: 1000,
      soft: [10, 200],
      step: 1,
      shownWhen: { param: 'towards', is: ['length'] },
    }),
    hold: toggle('Hold ends', true, 'Leaves ends and borders where they are.'),
    ...regionParams,
  },
  summary: (v) => `${v.passes} × ${brief(v.strength)} %`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const to = relaxed(input, v.passes, v.strength / 100, v.towards === 'length' ? v.length / 100 : null, v.hold);
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});
