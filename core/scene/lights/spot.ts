import { number } from '../../declare/params';
import { defineLight } from '../kind';
import { aimOf, lampColour, lampParams, placeOf, strengthOf } from './lamp-params';

export const spot = defineLight({
  kind: 'spot',
  title: 'Spot',
  help: 'A cone of light from a lamp to a point.',
  icon: 'M9 3h6l1 5H8zM8 8 4 21M16 8l4 13M12 8v13',
  aims: true,
  params: {
    strength: strengthOf(150, '100 % makes white paper white in the middle of the cone, three metres away.'),
    place: placeOf([3, 4, 3]),
    aim: aimOf(),
    cone: number('Cone', 40, 'Full angle of the cone.', { unit: '°', min: 1, max: 170, soft: [5, 120], step: 1 }),
    soft: number('Soft edge', 40, 'Share of the cone over which it fades out.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    radius: number('Radius', 0.1, 'Of the lamp: larger makes softer shadows.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 1],
    }),
    ...lampParams,
  },
  at: (v) => ({
    type: 'spot',
    intensity: (v.strength / 100) * Math.PI * 9,
    colour: lampColour(v),
    at: v.place,
    target: v.aim,
    cone: v.cone,
    soft: v.soft / 100,
    radius: v.radius,
    shadow: v.shadow,
  }),
});
