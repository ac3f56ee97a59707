import { fieldBound, type DistanceField } from '@maypole/core/shape/fractals/field';
import { uv, vec3, vec4, int, float } from 'three/tsl';
import { LIMIT, type Checked } from '../check/checked';
import { comparedNumbers, NumberDrawer } from '../check/number-drawer';
import { four, integer, rgb, scalar } from '../surfaces/tsl';
import { boundFunction } from './march';

/** Width of the tested plane, in sizes of the form. */
const SPAN = 2.6;
/** Depth of the tested plane. */
const DEPTH = 0.13;

const IDENTITY = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

const cases: readonly Pick<DistanceField, 'form' | 'numbers' | 'rounds'>[] = [
  { form: 'box', numbers: [-1.8, 0.2, 0, 0], rounds: 9 },
  { form: 'sponge', numbers: [1, 0.1, 0, 0], rounds: 4 },
  { form: 'bulb', numbers: [8, 0.7, 0, 0], rounds: 6 },
  { form: 'julia', numbers: [-0.2, 0.6, 0.4, 0.1], rounds: 9 },
  { form: 'net', numbers: [1.2, 0.4, 0, 0], rounds: 5 },
  { form: 'lattice', numbers: [0.5, 0.26, 0.06, 0.2], rounds: 1 },
];

/** Evaluates the distance bound of every form on a graphics card and compares it with core's. */
export async function* checkForms(): AsyncGenerator<Checked> {
  const drawer = await NumberDrawer.create();
  try {
    for (const [i, one] of cases.entries()) {
      const field: DistanceField = {
        ...one,
        middle: [0.1, -0.05, 0.02],
        zoom: 1.3,
        cut: i % 2 ? 'ball' : 'cube',
        skin: 0.01,
        matrix: IDENTITY,
      };
      const p = vec3(uv().x.sub(0.5).mul(SPAN), uv().y.sub(0.5).mul(SPAN), DEPTH);
      const value = boundFunction(field)(
        rgb(p),
        four(vec4(...field.numbers)),
        integer(int(field.rounds)),
        four(vec4(...field.middle, field.zoom)),
        scalar(float(field.skin)),
      );
      const bound = fieldBound(field);
      const exact = (u: number, v: number) => bound((u - 0.5) * SPAN, (v - 0.5) * SPAN, DEPTH);
      yield {
        name: `Endless form, ${field.form}`,
        limit: LIMIT,
        ...comparedNumbers(await drawer.draw(value), exact, LIMIT),
      };
    }
  } finally {
    drawer.dispose();
  }
}
