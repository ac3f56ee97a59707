import type { Maths } from '@maypole/core/pattern/maths';
import { abs, atan, cos, float, floor, fract, max, min, pow, sin, sqrt, uint } from 'three/tsl';
import type { Node } from 'three/webgpu';
import { scalar, type Scalar } from '../tsl';

type Uint = Node<'uint'>;

const whole = (x: unknown): Uint => uint(x as never) as Uint;

/** See `pcg` in core/pattern/maths. */
function pcg(x: Uint): Uint {
  const state = x.mul(whole(747796405)).add(whole(2891336453)).toVar() as unknown as Uint;
  const shift = state.shiftRight(whole(28)).add(whole(4)) as Uint;
  const word = state.shiftRight(shift).bitXor(state).mul(whole(277803737)).toVar() as unknown as Uint;
  return word.shiftRight(whole(22)).bitXor(word) as unknown as Uint;
}

/** Nodes of a shader. Three numbers as one node go through the same functions. */
export const shaderMaths: Maths<Scalar> = {
  number: (x) => scalar(float(x)),
  add: (a, b) => scalar(a.add(b)),
  sub: (a, b) => scalar(a.sub(b)),
  mul: (a, b) => scalar(a.mul(b)),
  div: (a, b) => scalar(a.div(b)),
  min: (a, b) => scalar(min(a, b)),
  max: (a, b) => scalar(max(a, b)),
  abs: (a) => scalar(abs(a)),
  floor: (a) => scalar(floor(a)),
  fract: (a) => scalar(fract(a)),
  sqrt: (a) => scalar(sqrt(a)),
  sin: (a) => scalar(sin(a)),
  cos: (a) => scalar(cos(a)),
  atan2: (y, x) => scalar(atan(y, x)),
  pow: (a, b) => scalar(pow(a, b)),
  less: (a, b, then, otherwise) => scalar(a.lessThan(b).select(then, otherwise)),
  chance: (id, seed) => {
    const thrown = pcg(whole(id).add(pcg(whole(seed))) as Uint).shiftRight(whole(8));
    return scalar(float(thrown as never).div(2 ** 24));
  },
};
