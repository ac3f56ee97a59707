import { number } from '../../declare/params';
import { definePattern } from '../kind';
import { centreParam, measuredParam, placeOf } from '../places';

export const distance = definePattern({
  kind: 'distance',
  title: 'Distance',
  help: 'By how far it is from a point.',
  icon: 'M12 12h8M12 9a3 3 0 1 0 0 6 3 3 0 0 0 0-6zM17 9l3 3-3 3',
  params: {
    by: measuredParam,
    centre: centreParam('From point', 'Where it is measured from.'),
    from: number('From', 0, 'Where it begins.', { unit: 'm', min: 0, max: 10_000, soft: [0, 4] }),
    to: number('To', 2, 'Where it ends.', { unit: 'm', min: 0, max: 10_000, soft: [0, 4] }),
  },
  height(m, hit, v) {
    const square = placeOf(hit, v.by)
      .map((x, k) => m.sub(x, v.centre[k]))
      .map((d) => m.mul(d, d))
      .reduce((a, b) => m.add(a, b));
    const span = m.sub(v.to, v.from);
    return m.div(m.sub(m.sqrt(square), v.from), m.less(m.abs(span), m.number(1e-5), m.number(1e-5), span));
  },
});
