import { number } from '../../declare/params';
import { defineLight } from '../kind';
import { shadeOf, shadeParams } from './shade';

export const studio = defineLight({
  kind: 'studio',
  title: 'Studio light',
  help: 'A room with soft lamps: a large one, a weaker one across, a strip from behind and a bright ceiling.',
  icon: 'lamp',
  one: 'round',
  params: {
    strength: number('Strength', 100, 'Brightness of the studio.', {
      unit: '%',
      min: 0,
      max: 1000,
      soft: [0, 300],
      step: 1,
    }),
    turn: number('Turn', 0, 'Turns the studio round the form.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
    }),
    ...shadeParams,
  },
  at: (v) => ({ type: 'studio', strength: v.strength / 100, turn: v.turn, ...shadeOf(v) }),
});
