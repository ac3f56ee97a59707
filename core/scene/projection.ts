import { cross, dot, normalize, vec3, type Vec3 } from '../maths/vec3';
import type { CameraAt } from './kind';
import { fitFrame, halfHeight } from './lens';

/** Maps space to the picture and back. */
export interface Projection {
  /** Pixels from the left and the top, and metres ahead of the camera; null behind it. */
  to(p: Vec3): { readonly x: number; readonly y: number; readonly depth: number } | null;
  /** Movement in metres, in the plane facing the camera at a depth, for a movement in pixels. */
  across(dx: number, dy: number, depth: number): [number, number, number];
  /** Ray through a pixel position: origin, and direction with length 1 ahead. */
  ray(x: number, y: number): { readonly from: Vec3; readonly way: Vec3 };
  /** Unit vectors: forward, right, up. */
  readonly ahead: Vec3;
}

/** What of a camera determines positions in the picture. */
export type CameraView = Pick<CameraAt, 'position' | 'target' | 'focalLength' | 'parallel' | 'roll' | 'shift'>;

const unit = (a: Vec3): Vec3 => normalize(a) ?? a;

/** Projection to a viewport in pixels into which the whole output frame fits. */
export function projectionOf(camera: CameraView, outputAspect: number, width: number, height: number): Projection {
  const { position, target, parallel, roll, shift } = camera;
  const scale = height / 2 / halfHeight(camera, outputAspect, width / height);
  const frame = fitFrame(camera.focalLength, outputAspect, width / height);
  const middle = [width / 2 + shift[0] * frame.width * width, height / 2 - shift[1] * frame.height * height] as const;
  const ahead = unit(vec3((k) => target[k] - position[k]));
  // At any elevation, right is defined except when looking straight up or down.
  const level = cross(ahead, [0, 1, 0]);
  const right0 = Math.hypot(...level) === 0 ? ([1, 0, 0] as const) : unit(level);
  const up0 = cross(right0, ahead);
  const [c, s] = [Math.cos((roll * Math.PI) / 180), Math.sin((roll * Math.PI) / 180)];
  // The camera rolls counter-clockwise, so that the picture turns clockwise.
  const right = vec3((k) => c * right0[k] + s * up0[k]);
  const up = vec3((k) => c * up0[k] - s * right0[k]);
  const across = (dx: number, dy: number, depth: number) => {
    const k = (parallel === 0 ? depth : 1) / scale;
    return vec3((i) => k * (dx * right[i] - dy * up[i]));
  };
  return {
    ahead,
    to(p) {
      const d = vec3((k) => p[k] - position[k]);
      const depth = dot(d, ahead);
      if (parallel === 0 && depth <= 1e-3) return null;
      const k = parallel === 0 ? scale / depth : scale;
      return { x: middle[0] + k * dot(d, right), y: middle[1] - k * dot(d, up), depth };
    },
    across: (dx, dy, depth) => [...across(dx, dy, depth)] as [number, number, number],
    ray(x, y) {
      const off = across(x - middle[0], y - middle[1], 1);
      return parallel === 0
        ? { from: position, way: vec3((k) => ahead[k] + off[k]) }
        : { from: vec3((k) => position[k] + off[k]), way: ahead };
    },
  };
}
