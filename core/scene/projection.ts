import { cross, dot, normalize, vec3, type Vec3 } from '../maths/vec3';
import { fitFrame, type CameraPose } from './lens';

/** From space to the picture and back, for a camera without roll. */
export interface Projection {
  /** Pixels from the left and the top, and metres in front of the camera; null behind it. */
  to(p: Vec3): { readonly x: number; readonly y: number; readonly depth: number } | null;
  /** How far a move by pixels goes in the plane that faces the camera at a depth, in metres. */
  across(dx: number, dy: number, depth: number): [number, number, number];
  /** Unit vectors: ahead, to the right, up. */
  readonly ahead: Vec3;
}

const unit = (a: Vec3): Vec3 => normalize(a) ?? a;

/** The projection of a viewport, in pixels, into which the whole output frame is fitted. */
export function projectionOf(
  pose: CameraPose,
  focalLength: number,
  outputAspect: number,
  width: number,
  height: number,
): Projection {
  const { fov } = fitFrame(focalLength, outputAspect, width / height);
  const scale = height / 2 / Math.tan((fov * Math.PI) / 360);
  const ahead = unit(vec3((k) => pose.target[k] - pose.position[k]));
  // However steeply it looks, which way is right is known but for looking straight up or down.
  const across = cross(ahead, [0, 1, 0]);
  const right = Math.hypot(...across) === 0 ? ([1, 0, 0] as const) : unit(across);
  const up = cross(right, ahead);
  return {
    ahead,
    to(p) {
      const d = vec3((k) => p[k] - pose.position[k]);
      const depth = dot(d, ahead);
      if (depth <= 1e-3) return null;
      return { x: width / 2 + (scale * dot(d, right)) / depth, y: height / 2 - (scale * dot(d, up)) / depth, depth };
    },
    across(dx, dy, depth) {
      const k = depth / scale;
      return [0, 1, 2].map((i) => k * (dx * right[i] - dy * up[i])) as [number, number, number];
    },
  };
}
