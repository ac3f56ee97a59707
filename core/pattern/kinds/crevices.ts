import { number } from '../../declare/params';
import { definePattern } from '../kind';
import { saturate } from '../maths';

export const crevices = definePattern({
  kind: 'crevices',
  title: 'Crevices',
  help: 'From open faces to those deep between others.',
  icon: 'M3 6h5l4 10 4-10h5',
  occlusion: true,
  params: {
    strength: number('Strength', 1, 'How strongly depth counts.', {
      unit: '×',
      min: 0,
      max: 20,
      soft: [0, 4],
      step: 0.05,
    }),
  },
  height: (m, hit, v) => saturate(m, m.mul(hit.occlusion, v.strength)),
});
