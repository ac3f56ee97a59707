import { number } from '../../declare/params';
import { definePattern } from '../kind';

export const depth = definePattern({
  kind: 'depth',
  title: 'Depth',
  help: 'By the distance from the camera.',
  icon: 'M3 20h18M6 15h12M9 10h6M11 5h2',
  params: {
    near: number('Near', 2, 'Where it begins.', { unit: 'm', min: 0, max: 100_000, soft: [0, 10] }),
    far: number('Far', 8, 'Where it ends.', { unit: 'm', min: 0, max: 100_000, soft: [0, 20] }),
  },
  height(m, hit, v) {
    const span = m.sub(v.far, v.near);
    return m.div(m.sub(hit.depth, v.near), m.less(m.abs(span), m.number(1e-5), m.number(1e-5), span));
  },
});
