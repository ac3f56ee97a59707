import { asset, choice, number } from '../../declare/params';
import { definePattern } from '../kind';
import { axes, axisParam, spaceParam } from '../places';

export const image = definePattern({
  kind: 'image',
  title: 'Picture',
  help: 'A picture laid on the surface, in its own colours or as light and dark.',
  icon: 'M4 5h16v14H4zM4 16l5-5 4 4 3-3 4 4M15.500 9h.01',
  params: {
    file: asset('File', 'image', 'A picture in PNG, JPEG or WebP.'),
    shows: choice(
      'Shows',
      'own',
      [
        { value: 'own', title: 'Its colours', help: 'On a number its brightness.' },
        { value: 'grey', title: 'Its brightness', help: 'From the lowest to the highest, or along the colours below.' },
      ],
      'What of the picture is shown.',
    ),
    laid: choice(
      'Laid',
      'surface',
      [
        { value: 'surface', title: 'On the surface', help: 'By its UV coordinates, once round it.' },
        { value: 'flat', title: 'Flat', help: 'Projected along the axis.' },
        { value: 'round', title: 'Round', help: 'Wrapped round the axis.' },
      ],
      'How it is brought onto the form.',
    ),
    space: { ...spaceParam, shownWhen: { param: 'laid', is: ['flat', 'round'] } },
    axis: { ...axisParam, shownWhen: { param: 'laid', is: ['flat', 'round'] } },
    width: number('Width', 2, 'Of the picture once.', {
      unit: 'm',
      min: 0.001,
      max: 10_000,
      soft: [0.1, 6],
      shownWhen: { param: 'laid', is: ['flat'] },
    }),
    height: number('Height', 2, 'Of the picture once.', {
      unit: 'm',
      min: 0.001,
      max: 10_000,
      soft: [0.1, 6],
      shownWhen: { param: 'laid', is: ['flat', 'round'] },
    }),
    times: number('Times', 1, 'How often it repeats once round.', {
      unit: '×',
      min: -100,
      max: 100,
      soft: [1, 8],
      step: 0.5,
      shownWhen: { param: 'laid', is: ['surface', 'round'] },
    }),
    along: number('Moved across', 0, 'In pictures: a whole number per loop closes.', {
      min: -10_000,
      max: 10_000,
      soft: [-1, 1],
      cyclic: 1,
    }),
    up: number('Moved up', 0, 'In pictures: a whole number per loop closes.', {
      min: -10_000,
      max: 10_000,
      soft: [-1, 1],
      cyclic: 1,
    }),
  },
  image: {
    file: (v) => v.file,
    coloured: { param: 'shows', is: ['grey'] },
    own: (v) => v.shows === 'own',
    at(m, hit, v) {
      const moved = (x: typeof v.along, y: typeof v.up) => [m.sub(x, v.along), m.sub(y, v.up)] as const;
      if (v.laid === 'surface') return moved(m.mul(hit.uv[0], v.times), m.mul(hit.uv[1], v.times));
      const { along, across } = axes(v.space === 'room' ? hit.room : hit.form, v.axis);
      if (v.laid === 'flat')
        return moved(m.add(m.div(across[0], v.width), m.number(0.5)), m.add(m.div(across[1], v.height), m.number(0.5)));
      const turn = m.mul(m.atan2(across[1], across[0]), m.number(1 / (2 * Math.PI)));
      return moved(m.mul(turn, v.times), m.add(m.div(along, v.height), m.number(0.5)));
    },
  },
  height: (m, _hit, _values, read) => read([m.number(0), m.number(0), m.number(0)]),
});
