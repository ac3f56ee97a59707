import { number, seed, toggle } from '../../declare/params';
import { splitTime } from '../../time/phase';
import { definePictureEffect } from '../kind';

export const grain = definePictureEffect({
  kind: 'grain',
  title: 'Grain',
  help: 'Film grain that repeats with the loop.',
  icon: 'M5 5h.01M9 8h.01M14 5h.01M18 9h.01M6 12h.01M11 12h.01M16 14h.01M5 18h.01M10 17h.01M14 19h.01M19 18h.01',
  params: {
    amount: number('Amount', 6, 'How strong it is.', { unit: '%', min: 0, max: 100, soft: [0, 30], step: 0.5 }),
    size: number('Size', 1.5, 'Of a grain, in pixels of a picture 1000 pixels high.', {
      unit: 'px',
      min: 0.5,
      max: 50,
      soft: [0.5, 6],
      step: 0.1,
    }),
    moves: toggle('Moves', true, 'Different grain in every frame of the loop; otherwise it stands still.'),
    seed: seed('Seed', 0, 'A different number gives another grain.', 'pattern', { moves: false }),
  },
  // Seeded by the frame within the loop, so that frame N has the grain of frame 0.
  at: (v, clock) => ({
    type: 'grain',
    amount: v.amount / 100,
    size: v.size,
    throw: v.seed + (v.moves ? Math.floor(splitTime(clock).frame) * 7.31 : 0),
  }),
});
