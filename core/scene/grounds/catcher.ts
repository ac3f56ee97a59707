import { colour, number } from '../../declare/params';
import { defineGround } from '../kind';

export const catcher = defineGround({
  kind: 'catcher',
  title: 'Shadow floor',
  help: 'A floor of which only shadows and reflections are seen, over whatever is behind.',
  icon: 'M3 18h18M8 14a4 4 0 1 1 8 0M6 18c2-2 10-2 12 0',
  params: {
    height: number('Height', -1, 'Where the floor lies.', { unit: 'm', min: -10_000, max: 10_000, soft: [-3, 3] }),
    strength: number('Strength', 45, 'How dark a full shadow is.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    colour: colour('Colour', '#1B1E26', 'Of the shadow.'),
    reach: number('Reaches', 12, 'How far from the middle shadows are seen; they fade out before.', {
      unit: 'm',
      min: 0.1,
      max: 10_000,
      soft: [2, 40],
    }),
    mirror: number('Reflects', 0, 'How much of what stands on it is mirrored; 0 costs nothing.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 60],
      step: 1,
    }),
    rough: number('Rough', 15, 'How soft the reflection is.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 60],
      step: 1,
    }),
  },
  at: (v) => ({
    type: 'catcher',
    height: v.height,
    strength: v.strength / 100,
    colour: v.colour,
    reach: v.reach,
    mirror: v.mirror / 100,
    rough: v.rough / 100,
  }),
});
