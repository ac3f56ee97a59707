import { colour, number } from '../../declare/params';
import { defineLight } from '../kind';
import { shadeOf, shadeParams } from './shade';

export const sky = defineLight({
  kind: 'sky',
  title: 'Sky',
  help: 'Light from all round: one colour above, one at the horizon, one below.',
  icon: 'M3 17h18M5 13a7 7 0 0 1 14 0M12 3v2M4 7l1 1M20 7l-1 1',
  one: 'round',
  params: {
    strength: number('Strength', 100, 'Brightness of all of it.', {
      unit: '%',
      min: 0,
      max: 10_000,
      soft: [0, 300],
      step: 1,
    }),
    above: colour('Above', '#7FA9D9', 'Colour overhead.'),
    horizon: colour('Horizon', '#E9EEF2', 'Colour all round at the height of the eye.'),
    below: colour('Below', '#6B655C', 'Colour of the ground.'),
    edge: number('Horizon is', 40, 'How far the horizon’s colour reaches up and down.', {
      unit: '%',
      min: 1,
      max: 100,
      soft: [1, 100],
      step: 1,
    }),
    ...shadeParams,
  },
  at: (v) => ({
    type: 'sky',
    strength: v.strength / 100,
    turn: 0,
    above: v.above,
    horizon: v.horizon,
    below: v.below,
    edge: v.edge / 100,
    ...shadeOf(v),
  }),
});
