import { colour, number } from '../../declare/params';
import { defineAir } from '../kind';
import { thinningParams } from './thinning';

export const fog = defineAir({
  kind: 'fog',
  title: 'Fog',
  help: 'Distant things fade into the air, more so near the ground if you like.',
  icon: 'M4 8h13M7 12h13M4 16h10M17 16h3',
  one: 'fog',
  params: {
    colour: colour('Colour', '#C8D2DA', 'Colour of the air.'),
    density: number('Density', 8, 'Share of the light that is lost in each metre.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 40],
      step: 0.5,
    }),
    begins: number('Begins at', 0, 'Distance from the camera up to which the air is clear.', {
      unit: 'm',
      min: 0,
      max: 100_000,
      soft: [0, 20],
      step: 0.1,
    }),
    ...thinningParams,
  },
  // 1 − e^{−σ} is absorbed per metre (Beer–Lambert).
  at: (v) => ({
    type: 'fog',
    colour: v.colour,
    extinction: -Math.log(1 - Math.min(0.9999, v.density / 100)),
    begins: v.begins,
    height: v.height,
    ground: v.ground,
  }),
});
