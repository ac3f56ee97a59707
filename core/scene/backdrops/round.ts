import { colour, number } from '../../declare/params';
import { defineBackdrop } from '../kind';

export const roundBackdrop = defineBackdrop({
  kind: 'round',
  title: 'Surroundings',
  help: 'Shows the surroundings behind everything: the sky, the studio or the picture of light.',
  icon: 'M12 3a9 9 0 1 0 0 18 9 9 0 0 0 0-18zM3 12h18M12 3c4 4 4 14 0 18M12 3c-4 4-4 14 0 18',
  params: {
    blur: number('Blur', 20, 'How far it is out of focus.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 }),
    strength: number('Strength', 100, 'How bright it looks; the light it gives stays as it is.', {
      unit: '%',
      min: 0,
      max: 10_000,
      soft: [0, 200],
      step: 1,
    }),
    colour: colour('Without', '#15171C', 'Shown where there are no surroundings.'),
  },
  at: (v) => ({ type: 'round', colour: v.colour, blur: v.blur / 100, strength: v.strength / 100 }),
});
