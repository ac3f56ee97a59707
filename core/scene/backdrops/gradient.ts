import { choice, colour, number } from '../../declare/params';
import { defineBackdrop } from '../kind';

export const gradientBackdrop = defineBackdrop({
  kind: 'gradient',
  title: 'Gradient',
  help: 'A gradient of two colours behind everything.',
  icon: 'M4 4h16v16H4zM4 9h16M4 13h16M4 16h16M4 18h16',
  params: {
    from: colour('From', '#E9EEF0', 'Colour above, or in the middle.'),
    to: colour('To', '#9FB4BC', 'Colour below, or at the corners.'),
    shape: choice(
      'Shape',
      'line',
      [
        { value: 'line', title: 'Line' },
        { value: 'round', title: 'Round' },
      ],
      'From edge to edge, or from the middle outwards.',
    ),
    angle: number('Turned', 0, 'Turns the line.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
      shownWhen: { param: 'shape', is: ['line'] },
    }),
    middle: number('Halfway at', 50, 'Where the two colours are mixed in equal parts.', {
      unit: '%',
      min: 1,
      max: 99,
      soft: [10, 90],
      step: 1,
    }),
  },
  at: (v) => ({
    type: 'gradient',
    colour: v.from,
    to: v.to,
    round: v.shape === 'round',
    angle: v.angle,
    middle: v.middle / 100,
  }),
});
