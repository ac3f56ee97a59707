import { choice, number } from '../../declare/params';
import { definePart } from '../part';

export const brushed = definePart({
  kind: 'brushed',
  title: 'Brushed',
  help: 'Fine grooves that stretch highlights across them, as on brushed or turned metal.',
  icon: 'M4 6h12M8 10h12M4 14h12M8 18h12',
  params: {
    amount: number('Amount', 70, 'How far highlights are stretched.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    way: choice(
      'Grooves',
      'round',
      [
        { value: 'round', title: 'Round', help: 'Round the axis, as turned on a lathe.' },
        { value: 'along', title: 'Along', help: 'Along the axis, as drawn through a die.' },
      ],
      'The way the grooves go.',
    ),
    axis: choice(
      'Axis',
      'y',
      [
        { value: 'x', title: 'x' },
        { value: 'y', title: 'y' },
        { value: 'z', title: 'z' },
      ],
      'Of the form.',
    ),
    turn: number('Turned', 0, 'Turns the grooves on the surface.', {
      unit: '°',
      cyclic: 180,
      min: -36_000,
      max: 36_000,
      soft: [-90, 90],
      step: 1,
    }),
  },
  feature: 'brushed',
  channels: { amount: ['anisotropy', 0.01], turn: ['anisotropyRotation', Math.PI / 180] },
  surface: (v) => ({
    anisotropy: v.amount / 100,
    anisotropyRotation: (v.turn * Math.PI) / 180,
    grooves: { way: v.way, axis: v.axis },
  }),
});
