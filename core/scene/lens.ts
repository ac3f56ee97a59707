/** Picture width in millimetres that focal lengths refer to. */
const FORMAT_WIDTH = 36;

/**
 * Vertical field of view in degrees for an aspect ratio (width / height): the 36 mm lie along the longer side, so that
 * portrait pictures keep the look of the lens. Thin lens: angle = 2·atan(side / (2·f)).
 */
export function verticalFov(focalLength: number, aspect: number): number {
  const height = aspect >= 1 ? FORMAT_WIDTH / aspect : FORMAT_WIDTH;
  return (2 * Math.atan(height / (2 * focalLength)) * 180) / Math.PI;
}

/**
 * Field of view that shows the whole output frame in a viewport of another aspect, and the share of the viewport (0…1)
 * which that frame fills.
 */
export function fitFrame(
  focalLength: number,
  outputAspect: number,
  viewportAspect: number,
): { fov: number; width: number; height: number } {
  const fov = verticalFov(focalLength, outputAspect);
  if (viewportAspect >= outputAspect) return { fov, width: outputAspect / viewportAspect, height: 1 };
  const half = (Math.tan((fov * Math.PI) / 360) * outputAspect) / viewportAspect;
  return { fov: (2 * Math.atan(half) * 180) / Math.PI, width: 1, height: viewportAspect / outputAspect };
}

/** What determines the scale of a picture. */
export interface LensAt {
  readonly focalLength: number;
  /** Width in metres of the longer side; 0 for perspective. */
  readonly parallel: number;
}

/**
 * Half the height that a viewport shows, at one metre in perspective or anywhere for parallel rays, so that the whole
 * output frame fits.
 */
export function halfHeight({ focalLength, parallel }: LensAt, outputAspect: number, viewportAspect: number): number {
  if (parallel === 0) return Math.tan((fitFrame(focalLength, outputAspect, viewportAspect).fov * Math.PI) / 360);
  const half = (outputAspect >= 1 ? parallel / outputAspect : parallel) / 2;
  return viewportAspect >= outputAspect ? half : (half * outputAspect) / viewportAspect;
}

/** Distance of a point along the viewing direction. */
export function distanceAhead({ position, target }: CameraPose, point: readonly [number, number, number]): number {
  const way = target.map((t, k) => t - position[k]);
  const length = Math.hypot(...way) || 1;
  return way.reduce((sum, w, k) => sum + (w / length) * (point[k] - position[k]), 0);
}

export interface CameraPose {
  readonly position: readonly [number, number, number];
  readonly target: readonly [number, number, number];
}

/** Position of a camera orbiting `target`; y is up, azimuth 0 looks from +z. */
export function orbitPose(
  azimuth: number,
  elevation: number,
  distance: number,
  target: readonly [number, number, number],
): CameraPose {
  const a = (azimuth * Math.PI) / 180;
  const e = (elevation * Math.PI) / 180;
  return {
    position: [
      target[0] + distance * Math.cos(e) * Math.sin(a),
      target[1] + distance * Math.sin(e),
      target[2] + distance * Math.cos(e) * Math.cos(a),
    ],
    target,
  };
}
