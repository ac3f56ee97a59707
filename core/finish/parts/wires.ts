import { choice, colour, number } from '../../declare/params';
import { definePart } from '../part';

export const wires = definePart({
  kind: 'wires',
  title: 'Wires',
  help: 'The edges of its faces and its curves as lines of the picture, which may shine.',
  icon: 'M4 18L12 4l8 14zM8 11h8M12 4v14',
  params: {
    colour: colour('Colour', '#FFB35C', 'Colour of the lines.'),
    strength: number('Strength', 1, 'At 1 they have just their colour; beyond they glow where the picture has bloom.', {
      unit: '×',
      min: 0,
      max: 1000,
      soft: [0, 12],
      step: 0.1,
    }),
    width: number('Width', 1.6, 'In pixels of a picture a thousand pixels high, however large it is made.', {
      unit: 'px',
      min: 0.1,
      max: 100,
      soft: [0.3, 8],
      step: 0.1,
    }),
    hidden: number('Hidden', 0, 'How much is seen of lines that lie behind faces.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    faces: choice(
      'Faces',
      'shown',
      [
        { value: 'shown', title: 'Shown' },
        { value: 'cover', title: 'Only cover', help: 'They are not seen, and hide what lies behind them.' },
        { value: 'none', title: 'None', help: 'Lines alone.' },
      ],
      'Whether the faces between the lines are there.',
    ),
  },
  feature: 'wires',
  surface: (v) => ({
    wires: { colour: v.colour, strength: v.strength, width: v.width, hidden: v.hidden / 100, faces: v.faces },
  }),
});
