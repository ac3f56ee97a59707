import { colour, number, vector, type Params } from '../declare/params';

/**
 * The camera goes round a point. Focal length is that of a 36 mm wide picture (ISO 1007 small
 * format) laid along the longer side of the output.
 */
export const cameraParams = {
  azimuth: number('Round', 35, 'Angle round the upright axis.', { unit: '°', cyclic: 360, min: -36_000, max: 36_000, soft: [-180, 180], step: 1 }),
  elevation: number('Above', 24, 'Angle above the horizon.', { unit: '°', min: -90, max: 90, soft: [-90, 90], step: 1 }),
  distance: number('Distance', 7, 'From the point it looks at.', { unit: 'm', min: 0.01, max: 10_000, soft: [0.5, 20], step: 0.1 }),
  focalLength: number('Focal length', 50, 'Long lenses flatten, short ones exaggerate.', { unit: 'mm', min: 5, max: 1200, soft: [12, 300], step: 1 }),
  target: vector('Looks at', [0, 0, 0], 'The point in the middle of the picture.', { unit: 'm', min: -10_000, max: 10_000, soft: [-3, 3] }),
} as const;

export const lightParams = {
  strength: number('Strength', 100, 'Brightness of the studio.', { unit: '%', min: 0, max: 1000, soft: [0, 300], step: 1 }),
  turn: number('Turn', 0, 'Turns the studio round the form.', { unit: '°', cyclic: 360, min: -36_000, max: 36_000, soft: [-180, 180], step: 1 }),
} as const;

export const backdropParams = {
  colour: colour('Colour', '#CDD4D4', 'Colour behind everything.'),
} as const;

/** The parts of the scene: each is a set of declared values under its name in the piece. */
export const sceneParts = {
  camera: { title: 'Camera', params: cameraParams as Params },
  light: { title: 'Studio light', params: lightParams as Params },
  backdrop: { title: 'Backdrop', params: backdropParams as Params },
} as const;

export type ScenePart = keyof typeof sceneParts;
