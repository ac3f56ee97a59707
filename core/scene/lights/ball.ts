import { number } from '../../declare/params';
import { defineLight } from '../kind';
import { lampColour, lampParams, placeOf, strengthOf } from './lamp-params';

export const ball = defineLight({
  kind: 'ball',
  title: 'Ball light',
  help: 'A ball that shines all round; it fades with the square of the distance.',
  icon: 'M12 6a6 6 0 1 0 0 12 6 6 0 0 0 0-12zM12 2v1M12 21v1M2 12h1M21 12h1',
  aims: true,
  params: {
    strength: strengthOf(100, '100 % makes white paper white three metres away.'),
    place: placeOf([2, 3, 2]),
    radius: number('Radius', 0.2, 'Of the ball: larger makes softer shadows.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 2],
    }),
    ...lampParams,
  },
  at: (v) => ({
    type: 'ball',
    intensity: (v.strength / 100) * Math.PI * 9,
    colour: lampColour(v),
    at: v.place,
    radius: v.radius,
    shadow: v.shadow,
  }),
});
