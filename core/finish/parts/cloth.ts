import { colour, number } from '../../declare/params';
import { definePart } from '../part';

export const cloth = definePart({
  kind: 'cloth',
  title: 'Cloth',
  help: 'A soft shine along outlines, as of velvet, felt or peach skin.',
  icon: 'M4 4h16v16H4zM4 9h16M4 15h16M9 4v16M15 4v16',
  params: {
    sheen: number('Shine', 100, 'How strong it is.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 }),
    colour: colour('Colour', '#FFE9D6', 'Colour of the shine.'),
    roughness: number('Roughness', 35, 'From a narrow rim to an even haze.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
  },
  feature: 'cloth',
  channels: { sheen: ['sheen', 0.01], colour: 'sheenColor', roughness: ['sheenRoughness', 0.01] },
  surface: (v) => ({ sheen: v.sheen / 100, sheenColor: v.colour, sheenRoughness: v.roughness / 100 }),
});
