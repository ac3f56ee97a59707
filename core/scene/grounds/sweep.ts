import { colour, number } from '../../declare/params';
import { defineGround } from '../kind';

export const sweep = defineGround({
  kind: 'sweep',
  title: 'Studio sweep',
  help: 'A floor that curves up into a wall, as in a photographer’s studio; light and shadow fall on it.',
  icon: 'M3 20h8c6 0 9-3 9-9V3',
  params: {
    colour: colour('Colour', '#D9D4CA', 'Colour of floor and wall.'),
    roughness: number('Roughness', 90, 'From mirror to chalk.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    height: number('Floor at', -1, 'Where the floor lies.', { unit: 'm', min: -10_000, max: 10_000, soft: [-3, 3] }),
    back: number('Wall at', 5, 'How far behind the middle the wall stands.', {
      unit: 'm',
      min: 0.1,
      max: 10_000,
      soft: [1, 20],
    }),
    curve: number('Curve', 3, 'Radius of the curve between floor and wall.', {
      unit: 'm',
      min: 0.01,
      max: 10_000,
      soft: [0.2, 8],
    }),
    turn: number('Turn', 35, 'Round the upright axis: the wall stands opposite, as seen from a camera at this angle.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
    }),
  },
  at: (v) => ({
    type: 'sweep',
    colour: v.colour,
    roughness: v.roughness / 100,
    height: v.height,
    back: v.back,
    curve: Math.min(v.curve, v.back),
    turn: v.turn,
  }),
});
