/** Width in millimetres of the picture a focal length refers to. */
const FORMAT_WIDTH = 36;

/**
 * Vertical angle of view in degrees for a picture of a given aspect (width / height): the 36 mm
 * lie along its longer side, so turning a picture upright keeps the look of the lens.
 * Thin-lens relation: angle = 2·atan(side / (2·f)).
 */
export function verticalFov(focalLength: number, aspect: number): number {
  const height = aspect >= 1 ? FORMAT_WIDTH / aspect : FORMAT_WIDTH;
  return (2 * Math.atan(height / (2 * focalLength)) * 180) / Math.PI;
}

/**
 * The angle of view that shows the whole output frame inside a viewport of another aspect, and the
 * part of the viewport's width and height (0…1) which that frame then fills.
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

/** What of a camera says how large things are. */
export interface LensAt {
  readonly focalLength: number;
  /** Metres across the longer side; 0 for a perspective. */
  readonly parallel: number;
}

/**
 * Half the height of what a viewport shows, at a metre's distance in perspective or anywhere where
 * rays are parallel, so that the whole output frame is inside it.
 */
export function halfHeight({ focalLength, parallel }: LensAt, outputAspect: number, viewportAspect: number): number {
  if (parallel === 0) return Math.tan((fitFrame(focalLength, outputAspect, viewportAspect).fov * Math.PI) / 360);
  const half = (outputAspect >= 1 ? parallel / outputAspect : parallel) / 2;
  return viewportAspect >= outputAspect ? half : (half * outputAspect) / viewportAspect;
}

/** How far in front of a camera a point lies, measured along the way it looks. */
export function distanceAhead({ position, target }: CameraPose, point: readonly [number, number, number]): number {
  const way = target.map((t, k) => t - position[k]);
  const length = Math.hypot(...way) || 1;
  return way.reduce((sum, w, k) => sum + (w / length) * (point[k] - position[k]), 0);
}

export interface CameraPose {
  readonly position: readonly [number, number, number];
  readonly target: readonly [number, number, number];
}

/** Where a camera stands that goes round `target`; y is up, azimuth 0 looks from +z. */
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
