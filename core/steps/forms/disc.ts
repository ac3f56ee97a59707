import { number } from '../../declare/params';
import { lathe } from '../../shape/lathe';
import { brief, checkFaces, defineStep } from '../step';
import { stretch, stretched } from './stretch';

/** A flat disc, or a ring with a hole, facing up. */
export const disc = defineStep({
  kind: 'disc',
  title: 'Disc',
  help: 'A flat round sheet, with or without a hole.',
  icon: 'disc',
  group: 'form',
  params: {
    radius: number('Radius', 1, 'Of its outer rim.', { unit: 'm', min: 0, max: 1000, soft: [0, 4] }),
    hole: number('Hole', 0, 'Radius of the hole; 0 is none.', { unit: 'm', min: 0, max: 1000, soft: [0, 4] }),
    sides: number('Sides', 64, 'Faces round the middle.', { min: 3, max: 2000, soft: [3, 160], integer: true }),
    rings: number('Rings', 12, 'Faces from the hole to the rim.', { min: 1, max: 1000, soft: [1, 64], integer: true }),
    stretch,
  },
  summary: (v) => `radius ${brief(v.radius)} m${v.hole > 0 ? `, hole ${brief(v.hole)} m` : ''}`,
  evaluate(v) {
    checkFaces(v.sides * v.rings, 'Use fewer sides or rings.');
    // From the rim inwards: seen from above, that is the outside of the revolved profile.
    return stretched(
      lathe(
        Array.from({ length: v.rings + 1 }, (_, k) => ({ r: v.radius + ((v.hole - v.radius) * k) / v.rings, y: 0 })),
        v.sides,
      ),
      v.stretch,
    );
  },
});
