import { colour, number } from '../../declare/params';
import { definePart } from '../part';

export const base = definePart({
  kind: 'base',
  title: 'Base',
  help: 'Colour, roughness and specular of the surface.',
  icon: 'palette',
  params: {
    colour: colour('Colour', '#D9483B', 'Colour of the surface.'),
    roughness: number('Roughness', 45, 'From mirror to chalk.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    specular: number('Specular', 100, 'How much light non-metals reflect: at 0 even a smooth surface is matt.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
  },
  channels: { colour: 'baseColor', roughness: ['roughness', 0.01], specular: ['specular', 0.01] },
  surface: (v) => ({ baseColor: v.colour, roughness: v.roughness / 100, specular: v.specular / 100 }),
});
