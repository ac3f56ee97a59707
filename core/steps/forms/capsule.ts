import { number } from '../../declare/params';
import { arc, lathe, straight, type ProfilePoint } from '../../shape/lathe';
import { brief, checkFaces, defineStep } from '../step';
import { stretch, stretched } from './stretch';

/** A cylinder with hemispherical ends. */
export const capsule = defineStep({
  kind: 'capsule',
  title: 'Capsule',
  help: 'A pillar with round ends.',
  icon: 'capsule',
  group: 'form',
  params: {
    radius: number('Radius', 0.5, 'Of the pillar and its ends.', { unit: 'm', min: 0, max: 1000, soft: [0, 2] }),
    height: number('Height', 2, 'From tip to tip.', { unit: 'm', min: 0, max: 1000, soft: [0, 6] }),
    sides: number('Sides', 32, 'Faces round the axis.', { min: 3, max: 2000, soft: [3, 128], integer: true }),
    rows: number('Rows', 8, 'Faces along the straight part.', { min: 1, max: 1000, soft: [1, 64], integer: true }),
    endRows: number('End rows', 8, 'Faces from the straight part to the tip.', {
      min: 1,
      max: 500,
      soft: [1, 32],
      integer: true,
    }),
    stretch,
  },
  summary: (v) => `${brief(v.radius)} × ${brief(v.height)} m · ${v.sides} sides`,
  evaluate(v) {
    checkFaces(v.sides * (v.rows + 2 * v.endRows), 'Use fewer sides or rows.');
    // A capsule lower than it is wide is a sphere.
    const half = Math.max(0, v.height / 2 - v.radius);
    const profile: ProfilePoint[] = [
      ...arc(0, -half, v.radius, -Math.PI / 2, 0, v.endRows),
      ...straight({ r: v.radius, y: -half }, { r: v.radius, y: half }, v.rows),
      ...arc(0, half, v.radius, 0, Math.PI / 2, v.endRows),
      { r: 0, y: half + v.radius },
    ];
    profile[0] = { r: 0, y: -half - v.radius };
    return stretched(lathe(profile, v.sides), v.stretch);
  },
});
