import { choice, number } from '../../declare/params';
import { definePattern } from '../kind';
import { smoothstep } from '../maths';
import { axes, axisParam, placeOf, spaceParam } from '../places';
import { pushNoise, pushParams } from '../push';

export const bands = definePattern({
  kind: 'bands',
  title: 'Bands',
  help: 'Stripes side by side or rings inside each other, sharp or soft.',
  icon: 'M4 5h16M4 10h16M4 15h16M4 20h16',
  params: {
    as: choice(
      'Shape',
      'stripes',
      [
        { value: 'stripes', title: 'Stripes', help: 'Layers along the axis.' },
        { value: 'rings', title: 'Rings', help: 'Tubes about the axis, as in a trunk.' },
        { value: 'shells', title: 'Shells', help: 'Balls about the middle, as of an onion.' },
      ],
      'Layers along an axis, tubes about it, or balls about the middle.',
    ),
    space: spaceParam,
    axis: axisParam,
    width: number('Width', 0.3, 'From one band to the next.', { unit: 'm', min: 0.0001, max: 1000, soft: [0.02, 2] }),
    share: number('Share', 50, 'Share of each period that the band takes.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    soft: number('Soft', 10, 'How gradually a band begins and ends.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    along: number('Moved on', 0, 'Along or outwards, in bands: a whole number per loop closes.', {
      min: -10_000,
      max: 10_000,
      soft: [-2, 2],
      cyclic: 1,
    }),
    ...pushParams,
  },
  noise: pushNoise,
  reads: { clock: (v) => v.push > 0 && v.pushRate > 0 },
  height(m, hit, v, read) {
    const at = placeOf(hit, v.space);
    const { along, across } = axes(at, v.axis);
    const round = m.add(m.mul(across[0], across[0]), m.mul(across[1], across[1]));
    const measure = v.as === 'stripes' ? along : m.sqrt(v.as === 'rings' ? round : m.add(round, m.mul(along, along)));
    const pushed = m.add(m.div(measure, v.width), m.mul(m.div(v.push, m.number(100)), read(at)));
    // −½…½ about the middle of a band, and the distance from it.
    const off = m.abs(m.sub(m.fract(m.sub(pushed, v.along)), m.number(0.5)));
    const half = m.div(v.share, m.number(200));
    const soft = m.div(v.soft, m.number(200));
    const edge = m.mul(soft, m.number(0.5));
    return m.sub(m.number(1), smoothstep(m, m.sub(half, edge), m.add(half, edge), off));
  },
});
