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
