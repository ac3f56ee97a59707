import { number, vector } from '../../declare/params';
import { defineCamera } from '../kind';
import { orbitPose } from '../lens';

/**
 * The camera goes round a point. Focal length is that of a 36 mm wide picture (ISO 1007 small
 * format) laid along the longer side of the output.
 */
export const orbitParams = {
  azimuth: number('Round', 35, 'Angle round the upright axis.', {
    unit: '°',
    cyclic: 360,
    min: -36_000,
    max: 36_000,
    soft: [-180, 180],
    step: 1,
  }),
  elevation: number('Above', 24, 'Angle above the horizon.', {
    unit: '°',
    min: -90,
    max: 90,
    soft: [-90, 90],
    step: 1,
  }),
  distance: number('Distance', 7, 'From the point it looks at.', {
    unit: 'm',
    min: 0.001,
    max: 1_000_000,
    soft: [0.5, 20],
    step: 0.1,
  }),
  focalLength: number('Focal length', 50, 'Long lenses flatten, short ones exaggerate.', {
    unit: 'mm',
    min: 5,
    max: 1200,
    soft: [12, 300],
    step: 1,
  }),
  target: vector('Looks at', [0, 0, 0], 'The point in the middle of the picture.', {
    unit: 'm',
    min: -100_000,
    max: 100_000,
    soft: [-3, 3],
  }),
  exposure: number('Exposure', 0, 'Stops: each one more is twice as bright. The backdrop stays as it is.', {
    unit: 'EV',
    min: -20,
    max: 20,
    soft: [-3, 3],
    step: 0.1,
  }),
  fNumber: number(
    'f-number',
    0,
    'Of the lens: the smaller, the less is sharp before and behind the focus. 0 is sharp everywhere.',
    {
      min: 0,
      max: 1000,
      soft: [0, 8],
      step: 0.05,
    },
  ),
  focus: number(
    'Focus',
    0,
    'Distance that is sharp, measured on from the point it looks at; below 0 nearer to the camera.',
    {
      unit: 'm',
      min: -100_000,
      max: 100_000,
      soft: [-3, 3],
    },
  ),
} as const;

export const orbit = defineCamera({
  kind: 'orbit',
  title: 'Camera',
  help: 'Goes round a point and looks at it.',
  icon: 'camera',
  params: orbitParams,
  at: (v) => ({
    ...orbitPose(v.azimuth, v.elevation, v.distance, v.target),
    focalLength: v.focalLength,
    exposure: 2 ** v.exposure,
    // The f-number is the focal length over the diameter of the lens.
    lensRadius: v.fNumber > 0 ? v.focalLength / 1000 / (2 * v.fNumber) : 0,
    focusDistance: Math.max(0.001, v.distance + v.focus),
  }),
});
