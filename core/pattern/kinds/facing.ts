import { number } from '../../declare/params';
import { definePattern } from '../kind';
import { saturate } from '../maths';

export const facing = definePattern({
  kind: 'facing',
  title: 'Rim',
  help: 'From faces that point at the camera to the rim of the form.',
  icon: 'M12 4a8 8 0 1 0 0 16 8 8 0 0 0 0-16zM12 8.5a3.5 3.5 0 1 0 0 7 3.5 3.5 0 0 0 0-7z',
  params: {
    power: number('Narrow', 2, 'How close to the rim it keeps.', { min: 0.05, max: 32, soft: [0.5, 8] }),
  },
  height: (m, hit, v) => m.pow(saturate(m, m.sub(m.number(1), hit.facing)), v.power),
});
