import type { Maths } from '@maypole/core/pattern/maths';
import { abs, atan, cos, float, floor, fract, max, min, pow, sin, sqrt, uint } from 'three/tsl';
import { scalar, unsigned, type Scalar, type Uint } from '../surfaces/tsl';

const whole = (x: Scalar | number): Uint => unsigned(typeof x === 'number' ? uint(x) : uint(x));

/** See `pcg` in core/pattern/maths. */
function pcg(x: Uint): Uint {
  const state = unsigned(x.mul(whole(747796405)).add(whole(2891336453)).toVar());
  const shift = state.shiftRight(whole(28)).add(whole(4)) as Uint;
  const word = unsigned(state.shiftRight(shift).bitXor(state).mul(whole(277803737)).toVar());
  return unsigned(word.shiftRight(whole(22)).bitXor(word));
}

/** Shader nodes. A vector node goes through the same functions. */
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
    const thrown = unsigned(pcg(unsigned(whole(id).add(pcg(whole(seed))))).shiftRight(whole(8)));
    return scalar(float(thrown).div(2 ** 24));
  },
};
