import { centreParam, measuredParam } from '../places';
import { number } from '../../declare/params';
import { definePattern } from '../kind';
import { axes, axisParam, placeOf } from '../places';

export const around = definePattern({
  kind: 'around',
  title: 'Around an axis',
  help: 'Changes once round an axis and meets itself.',
  icon: 'M12 4a8 8 0 1 1-7.5 5.2M4 4v5.5h5.5',
  round: true,
  params: {
    by: measuredParam,
    axis: axisParam,
    centre: centreParam('About', 'A point on the axis.'),
    twist: number('Twist', 0, 'Extra turns for each metre along the axis, so that it winds.', {
      min: -1000,
      max: 1000,
      soft: [-2, 2],
    }),
  },
  height(m, hit, v) {
    const [x, y, z] = placeOf(hit, v.by);
    const [cx, cy, cz] = v.centre;
    const { along, across } = axes([m.sub(x, cx), m.sub(y, cy), m.sub(z, cz)], v.axis);
    const angle = m.div(m.atan2(across[1], across[0]), m.number(2 * Math.PI));
    return m.fract(m.add(angle, m.mul(v.twist, along)));
  },
});
