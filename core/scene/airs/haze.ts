import { colour, number } from '../../declare/params';
import { defineAir } from '../kind';
import { thinningParams } from './thinning';

export const haze = defineAir({
  kind: 'haze',
  title: 'Lit air',
  help: 'Dust in the air that makes beams of lamps and suns visible, with shadows in it.',
  icon: 'M4 4l7 3M11 7l9 4v8L9 12M6 15h.01M9 18h.01M13 19.500h.01M17 5h.01M20 7h.01',
  one: 'haze',
  params: {
    colour: colour('Colour', '#FFFFFF', 'Colour of the dust.'),
    density: number('Density', 6, 'Share of the light that meets dust in each metre.', {
      unit: '%',
      min: 0,
      max: 99,
      soft: [0, 40],
      step: 0.5,
    }),
    forward: number('Forward', 35, 'How much light keeps its direction: beams are brighter seen against the light.', {
      unit: '%',
      min: -95,
      max: 95,
      soft: [-60, 90],
      step: 1,
    }),
    reach: number('Reaches', 12, 'How far from the middle of the form light is seen in the air.', {
      unit: 'm',
      min: 0.1,
      max: 10_000,
      soft: [2, 40],
      step: 0.5,
    }),
    ...thinningParams,
  },
  at: (v) => ({
    type: 'haze',
    colour: v.colour,
    extinction: -Math.log(1 - v.density / 100),
    forward: v.forward / 100,
    reach: v.reach,
    height: v.height,
    ground: v.ground,
  }),
});
