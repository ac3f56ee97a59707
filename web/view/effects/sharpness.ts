import type { CameraAt } from '@maypole/core/scene/kind';
import {
  abs,
  float,
  log2,
  max,
  mix,
  orthographicDepthToViewZ,
  perspectiveDepthToViewZ,
  saturate,
  select,
  uniform,
  vec3,
} from 'three/tsl';
import type { OrthographicCamera, PerspectiveCamera } from 'three/webgpu';
import { shown } from './false-colours';
import { SHARP, SHARP_COLOURS } from './sharp-colours';
import { rgb, scalar, type Rgb, type Scalar } from '../surfaces/tsl';

/**
 * Circle of confusion of a thin lens, as a share of the picture's height: 2r · |d − f| / d at the focus distance f (M.
 * Potmesil and I. Chakravarty, 1981).
 *
 * @param distance metres ahead of the camera
 * @param half half the height of the picture, in metres: one metre ahead, or anywhere for parallel rays
 */
export function blurWidth({ lensRadius, focusDistance, parallel }: CameraAt, distance: number, half: number): number {
  const across = 2 * lensRadius * Math.abs(distance / focusDistance - 1);
  return parallel > 0 ? across / (2 * half) : across / (2 * half * distance);
}

/** Focus shown in colour: `blurWidth` as a shader. */
export class Sharpness {
  private readonly radius = uniform(0);
  private readonly focus = uniform(1);
  private readonly half = uniform(1);
  private readonly parallel = uniform(0);
  private readonly near = uniform(0.1);
  private readonly far = uniform(100);

  fill(at: CameraAt, camera: PerspectiveCamera | OrthographicCamera, half: number): void {
    this.radius.value = at.lensRadius;
    this.focus.value = at.focusDistance;
    this.half.value = half;
    this.parallel.value = at.parallel > 0 ? 1 : 0;
    this.near.value = camera.near;
    this.far.value = camera.far;
  }

  /**
   * @param display the picture as it is shown
   * @param depth as the card has it
   */
  colours(display: Rgb, depth: Scalar): Rgb {
    const parallel = this.parallel.greaterThan(0.5);
    const z = select(
      parallel,
      orthographicDepthToViewZ(depth, this.near, this.far),
      perspectiveDepthToViewZ(depth, this.near, this.far),
    );
    const distance = max(z.negate(), float(1e-4)).toVar();
    const off = distance.div(this.focus).sub(1);
    const across = this.radius.mul(2).mul(abs(off)).div(this.half.mul(2));
    const width = select(parallel, across, across.div(distance)).mul(1000).toVar();
    // From sharp to lost over five doublings.
    const lost = saturate(log2(max(width, float(1e-6)).div(SHARP)).div(5));
    const grey = vec3(scalar(display.dot(vec3(0.2126, 0.7152, 0.0722))))
      .mul(0.8)
      .add(0.08);
    const away = select(off.lessThan(0), shown(SHARP_COLOURS.before), shown(SHARP_COLOURS.behind));
    const blurred = mix(grey, grey.mul(away).mul(1.6), lost.mul(0.9).add(0.1));
    return rgb(select(width.lessThan(SHARP), mix(grey, shown(SHARP_COLOURS.sharp), 0.7), blurred));
  }
}
