import { choice, colour, number } from '../../declare/params';
import { definePart } from '../part';

export const dots = definePart({
  kind: 'dots',
  title: 'Dots',
  help: 'A dot at every point of the form, which may shine.',
  icon: 'M6 6h.01M12 5h.01M18 7h.01M5 12h.01M11 12h.01M18 13h.01M7 18h.01M13 19h.01M18 19h.01',
  params: {
    colour: colour('Colour', '#FFB35C', 'Colour of the dots.'),
    strength: number('Strength', 1, 'At 1 they have just their colour; beyond they glow where the picture has bloom.', {
      unit: '×',
      min: 0,
      max: 1000,
      soft: [0, 12],
      step: 0.1,
    }),
    measure: choice(
      'Measured',
      'picture',
      [
        { value: 'picture', title: 'In the picture', help: 'As large near as far away.' },
        { value: 'room', title: 'In the room', help: 'Smaller where they are farther.' },
      ],
      'Whether dots shrink with distance.',
    ),
    size: number('Size', 6, 'In pixels of a picture a thousand pixels high, however large it is made.', {
      unit: 'px',
      min: 0.1,
      max: 500,
      soft: [1, 30],
      step: 0.1,
      shownWhen: { param: 'measure', is: ['picture'] },
    }),
    width: number('Width', 0.03, 'From side to side.', {
      unit: 'm',
      min: 0.0001,
      max: 1000,
      soft: [0.005, 0.2],
      step: 0.001,
      shownWhen: { param: 'measure', is: ['room'] },
    }),
    faces: choice(
      'Faces',
      'shown',
      [
        { value: 'shown', title: 'Shown' },
        { value: 'cover', title: 'Only cover', help: 'They are not seen, and hide what lies behind them.' },
        { value: 'none', title: 'None', help: 'Dots alone.' },
      ],
      'Whether the faces between the dots are there.',
    ),
  },
  feature: 'dots',
  surface: (v) => ({
    dots: {
      colour: v.colour,
      strength: v.strength,
      ...(v.measure === 'picture' ? { pixels: v.size } : { metres: v.width }),
      faces: v.faces,
    },
  }),
});
