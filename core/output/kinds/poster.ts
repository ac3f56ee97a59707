import { choice, number } from '../../declare/params';
import { defineOutput, needsTrueLight } from '../kind';

export const poster = defineOutput({
  kind: 'poster',
  title: 'Poster',
  help: 'One frame as a picture',
  group: 'single',
  icon: 'image',
  ending: 'png',
  params: {
    at: number('At', 0, 'Where in the rendered frames it is taken from.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      moves: false,
    }),
    depth: choice(
      'Depth',
      '8',
      [
        { value: '8', title: '8 bit' },
        { value: '16', title: '16 bit' },
      ],
      'In quick light, 8 bit.',
    ),
  },
  sheet: () => 'solid',
  refusal: ({ light, values }) => (values.depth === '16' ? needsTrueLight(light, 'A depth of 16 bit') : null),
});
