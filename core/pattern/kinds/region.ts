import { choice, number } from '../../declare/params';
import { definePattern } from '../kind';
import { smoothstep } from '../maths';
import { axes, axisParam, centreParam, measuredParam, placeOf } from '../places';

export const region = definePattern({
  kind: 'region',
  title: 'Region',
  help: 'High inside a ball, box, tube or slab and low outside, with a soft border.',
  icon: 'M12 4l7 4v8l-7 4-7-4V8zM12 9a3 3 0 1 0 0 6 3 3 0 0 0 0-6z',
  params: {
    shape: choice(
      'Shape',
      'ball',
      [
        { value: 'ball', title: 'Ball' },
        { value: 'box', title: 'Box' },
        { value: 'tube', title: 'Tube', help: 'Round about the axis, without end.' },
        { value: 'slab', title: 'Slab', help: 'Square to the axis, without end.' },
      ],
      'What is inside.',
    ),
    by: measuredParam,
    axis: { ...axisParam, shownWhen: { param: 'shape', is: ['tube', 'slab'] } },
    centre: centreParam('Middle', 'Where it is.'),
    size: number('Radius', 1, 'From its middle to its border.', { unit: 'm', min: 0, max: 10_000, soft: [0, 3] }),
    soft: number('Border', 0.3, 'How wide the border is, about where the region ends.', {
      unit: 'm',
      min: 0,
      max: 10_000,
      soft: [0, 2],
    }),
  },
  height(m, hit, v) {
    const place = placeOf(hit, v.by);
    const off = [0, 1, 2].map((k) => m.sub(place[k], v.centre[k])) as [typeof v.size, typeof v.size, typeof v.size];
    const { along, across } = axes(off, v.axis);
    const length = (list: readonly (typeof v.size)[]) =>
      m.sqrt(list.map((x) => m.mul(x, x)).reduce((a, b) => m.add(a, b)));
    const [ax, ay, az] = off.map((x) => m.abs(x));
    const out =
      v.shape === 'ball'
        ? length(off)
        : v.shape === 'box'
          ? m.max(ax, m.max(ay, az))
          : v.shape === 'tube'
            ? length(across)
            : m.abs(along);
    const half = m.mul(v.soft, m.number(0.5));
    return m.sub(m.number(1), smoothstep(m, m.sub(v.size, half), m.add(v.size, half), out));
  },
});
