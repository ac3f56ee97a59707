import { choice, number, vector, type Evaluated } from '../../declare/params';
import { fieldBound, CUBE, type DistanceField } from '../../shape/fractals/field';
import { surfaceNets } from '../../shape/surface-nets';
import { brief, defineStep } from '../step';

const only = (...is: string[]) => ({ shownWhen: { param: 'form', is } as const });

/** Fractal forms: the picture draws them exactly by sphere tracing; everything else uses a mesh as fine as its grid. */
export const endless = defineStep({
  kind: 'endless',
  title: 'Endless form',
  help: 'Folded and inverted space: sponges, bulbs, nets and lattices without end, cut out by a ball or a cube.',
  icon: 'M4 4h16v16H4zM9 9h6v6H9zM4 9h2M4 15h2M18 9h2M18 15h2M9 4v2M15 4v2M9 18v2M15 18v2',
  group: 'form',
  params: {
    form: choice(
      'Form',
      'box',
      [
        { value: 'box', title: 'Box and ball fold', help: 'Folded at the sides of a box and inverted in a ball.' },
        { value: 'sponge', title: 'Sponge', help: 'A cube with its middle thirds taken out, again and again.' },
        { value: 'bulb', title: 'Power bulb', help: 'Buds upon buds.' },
        { value: 'julia', title: 'Julia set', help: 'Smooth shells and necks, of quaternions.' },
        { value: 'net', title: 'Ball net', help: 'Balls touching balls, all the way down.' },
        { value: 'lattice', title: 'Lattice', help: 'Rounded cubes joined by rods.' },
      ],
      'Which one.',
    ),
    angle: number('Loop angle', 0, 'Goes round with the loop: whole turns close, whatever the form.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
    }),
    scale: number('Scale', -1.8, 'How much each fold grows.', { min: -3, max: 3, soft: [-2.5, 2.8], ...only('box') }),
    turned: number('Turned', 12, 'How far each smaller round is turned as the loop angle goes round.', {
      unit: '°',
      min: -180,
      max: 180,
      soft: [0, 45],
      step: 1,
      ...only('box', 'sponge'),
    }),
    hole: number('Hole', 100, 'How large the holes are, as a share of a third.', {
      unit: '%',
      min: 0,
      max: 250,
      soft: [20, 160],
      step: 1,
      ...only('sponge'),
    }),
    power: number('Power', 8, 'How many buds go round.', {
      min: 2,
      max: 16,
      soft: [2, 12],
      step: 0.1,
      ...only('bulb'),
    }),
    real: number('Real part', -0.2, 'Of the number that is added each time.', {
      min: -2,
      max: 2,
      soft: [-1, 1],
      ...only('julia'),
    }),
    circle: number('Circle', 0.72, 'How far its other parts are from 0; the loop angle leads them round.', {
      min: 0,
      max: 2,
      soft: [0, 1],
      ...only('julia'),
    }),
    grow: number('Growth', 1.2, 'How strongly it is turned inside out.', {
      min: 0.7,
      max: 2,
      soft: [0.9, 1.5],
      ...only('net'),
    }),
    spacing: number('Spacing', 0.5, 'From one to the next, in sizes.', {
      min: 0.05,
      max: 4,
      soft: [0.2, 1],
      ...only('lattice'),
    }),
    solid: number('Cubes', 26, 'Half their edge, as a share of the spacing.', {
      unit: '%',
      min: 1,
      max: 60,
      soft: [5, 45],
      step: 1,
      ...only('lattice'),
    }),
    rod: number('Rods', 6, 'Their radius, as a share of the spacing.', {
      unit: '%',
      min: 0.1,
      max: 45,
      soft: [1, 20],
      step: 0.5,
      ...only('lattice'),
    }),
    drawn: choice(
      'Drawn',
      'exactly',
      [
        { value: 'exactly', title: 'Exactly', help: 'Found for every pixel; Place and Spin leave it so.' },
        { value: 'faces', title: 'As faces', help: 'As fine as the cells of its grid.' },
      ],
      'How the picture shows it. Copies, further steps and files of geometry take its faces.',
    ),
    zoom: number('Zoom', 1, 'How large the form is within what it is cut out by.', {
      unit: '×',
      min: 0.05,
      max: 1000,
      soft: [0.5, 4],
      step: 0.01,
    }),
    middle: vector(
      'Middle',
      [0, 0, 0],
      'The point of the form that lies in the middle, in sizes. Move it to travel inside.',
      {
        min: -100,
        max: 100,
        soft: [-1, 1],
        step: 0.01,
      },
    ),
    rounds: number('Rounds', 7, 'How many times it is folded: more has finer parts.', {
      min: 1,
      max: 16,
      soft: [2, 12],
      integer: true,
    }),
    skin: number(
      'Skin',
      0.6,
      'How far outside the form its faces lie, as a share of its size: parts thinner than the grid then stay whole.',
      {
        unit: '%',
        min: 0,
        max: 20,
        soft: [0, 4],
        step: 0.1,
      },
    ),
    size: number('Size', 1.3, 'Its radius, and that of what it is cut out by.', {
      unit: 'm',
      min: 0.01,
      max: 1000,
      soft: [0.3, 4],
    }),
    cut: choice(
      'Cut by',
      'ball',
      [
        { value: 'ball', title: 'Ball' },
        { value: 'cube', title: 'Cube' },
      ],
      'What it is cut out by.',
    ),
    cells: number(
      'Cells',
      84,
      'Cells of the grid from side to side: more is finer, and takes longer with their cube.',
      {
        min: 8,
        max: 220,
        soft: [40, 160],
        integer: true,
      },
    ),
  },
  summary: (v) => `${v.form} · ${brief(v.size)} m`,
  evaluate(v) {
    const field = fieldOf(v);
    const { size } = v;
    const exactly = v.drawn === 'exactly';
    const half = v.cut === 'ball' ? 1 : CUBE;
    // The exact form may be thinner than any grid: its mesh is then moved outwards as far as it takes to be whole.
    const bound = fieldBound(exactly ? { ...field, skin: Math.max(field.skin, half / v.cells) } : field);
    const reach = size * half * (1 + 4 / v.cells);
    const mesh = surfaceNets(
      (x, y, z) => size * bound(x / size, y / size, z / size),
      [-reach, -reach, -reach],
      [reach, reach, reach],
      v.cells,
    );
    return exactly ? { ...mesh, field } : mesh;
  },
});

type Values = Evaluated<(typeof endless)['params']> & {
  readonly form: string;
  readonly drawn: string;
  readonly angle: number;
  readonly scale: number;
  readonly turned: number;
  readonly hole: number;
  readonly power: number;
  readonly real: number;
  readonly circle: number;
  readonly grow: number;
  readonly spacing: number;
  readonly solid: number;
  readonly rod: number;
  readonly rounds: number;
};

/** The distance field of the values. */
function fieldOf(values: object): DistanceField {
  const v = values as Values;
  const angle = (v.angle * Math.PI) / 180;
  // Forms without rotational symmetry swing to one side and back, so that whole turns of the angle close.
  const swing = ((v.turned * Math.PI) / 180) * Math.sin(angle);
  const common = {
    rounds: v.form === 'sponge' ? Math.min(6, v.rounds) : v.rounds,
    cut: v.cut as DistanceField['cut'],
    middle: v.middle,
    zoom: v.zoom,
    skin: v.skin / 100,
    matrix: [v.size, 0, 0, 0, 0, v.size, 0, 0, 0, 0, v.size, 0, 0, 0, 0, 1],
  };
  switch (v.form) {
    case 'box':
      // Between −1 and 1 it would not grow at all.
      return {
        form: 'box',
        numbers: [Math.abs(v.scale) < 1.05 ? Math.sign(v.scale || 1) * 1.05 : v.scale, swing, 0, 0],
        ...common,
      };
    case 'sponge':
      return { form: 'sponge', numbers: [v.hole / 100, swing, 0, 0], ...common };
    case 'bulb':
      return { form: 'bulb', numbers: [v.power, angle, 0, 0], ...common };
    case 'julia':
      return {
        form: 'julia',
        numbers: [v.real, v.circle * Math.cos(angle), v.circle * Math.sin(angle), 0.1],
        ...common,
      };
    case 'net':
      return { form: 'net', numbers: [v.grow, angle, 0, 0], ...common };
    default:
      return { form: 'lattice', numbers: [v.spacing, v.solid / 100, v.rod / 100, v.angle / 360], ...common };
  }
}
