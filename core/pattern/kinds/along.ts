import { choice, number } from '../../declare/params';
import { definePattern } from '../kind';
import { axes, axisParam, measuredParam, placeOf } from '../places';

export const along = definePattern({
  kind: 'along',
  title: 'Along an axis',
  help: 'Changes from one end to the other: by height, from side to side, or along the surface.',
  icon: 'M4 20L20 4M15 4h5v5',
  params: {
    by: choice(
      'Goes by',
      'form',
      [
        ...measuredParam.options,
        { value: 'u', title: 'Surface u', help: 'Once round the surface.' },
        { value: 'v', title: 'Surface v', help: 'Once across the surface.' },
      ],
      'Places of the form, in the room, of each copy as a whole, or on the surface (UV).',
    ),
    axis: { ...axisParam, shownWhen: { param: 'by', is: ['form', 'room', 'copy'] } },
    from: number('From', -1, 'Where it begins.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-3, 3],
      shownWhen: { param: 'by', is: ['form', 'room', 'copy'] },
    }),
    to: number('To', 1, 'Where it ends.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-3, 3],
      shownWhen: { param: 'by', is: ['form', 'room', 'copy'] },
    }),
  },
  height(m, hit, v) {
    if (v.by === 'v') return hit.uv[1];
    if (v.by === 'u') return m.sub(m.number(1), hit.uv[0]);
    const { along: x } = axes(placeOf(hit, v.by), v.axis);
    const span = m.sub(v.to, v.from);
    // If both ends coincide, it is a step there.
    const safe = m.less(m.abs(span), m.number(1e-5), m.number(1e-5), span);
    return m.div(m.sub(x, v.from), safe);
  },
});
