import { cross, dFdx, dFdy, dot, faceDirection, Fn, positionView, sign } from 'three/tsl';
import { rgb, type Rgb, type Scalar } from './tsl';

/**
 * Normal of a surface bumped by a height in metres, from screen-space derivatives (M. S. Mikkelsen, “Bump Mapping
 * Unparametrized Surfaces on the GPU”, 2010).
 */
export function bumped(height: Scalar, normal: Rgb): Rgb {
  return rgb(
    Fn(() => {
      const [px, py] = [dFdx(positionView).toVar(), dFdy(positionView).toVar()];
      const n = normal.toVar();
      const [r1, r2] = [cross(py, n), cross(n, px)];
      const det = dot(px, r1).mul(faceDirection).toVar();
      const h = height.toVar();
      const slope = r1
        .mul(dFdx(h))
        .add(r2.mul(dFdy(h)))
        .mul(sign(det));
      return det.abs().mul(n).sub(slope).normalize();
    })(),
  );
}
