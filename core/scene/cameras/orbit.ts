import { choice, number, ribbon, toggle, vector } from '../../declare/params';
import { defineCamera } from '../kind';
import { distanceAhead, orbitPose } from '../lens';

/**
 * The camera orbits a point. Focal length refers to a picture 36 mm wide (ISO 1007 small format), along the longer side
 * of the output.
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
  lens: choice(
    'Lens',
    'perspective',
    [
      { value: 'perspective', title: 'Perspective', help: 'Distant things look smaller.' },
      { value: 'parallel', title: 'Parallel', help: 'Distant things look as large, as in an isometric drawing.' },
    ],
    'Whether distant things look smaller.',
  ),
  span: number('Across', 6, 'Width of the picture along its longer side.', {
    unit: 'm',
    min: 0.001,
    max: 1_000_000,
    soft: [0.5, 20],
    step: 0.1,
    shownWhen: { param: 'lens', is: ['parallel'] },
  }),
  focalLength: number('Focal length', 50, 'Long lenses flatten, short ones exaggerate.', {
    shownWhen: { param: 'lens', is: ['perspective'] },
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
  exposure: number('Exposure', 0, 'In stops: one more is twice as bright. The backdrop stays as it is.', {
    unit: 'EV',
    min: -20,
    max: 20,
    soft: [-3, 3],
    step: 0.1,
  }),
  roll: number('Roll', 0, 'Turns the camera about the direction it looks in.', {
    unit: '°',
    cyclic: 360,
    min: -36_000,
    max: 36_000,
    soft: [-45, 45],
    step: 0.5,
    more: true,
  }),
  shift: vector('Shift', [0, 0, 0], 'Moves the picture across the film without turning the camera: right, up.', {
    unit: '%',
    min: -200,
    max: 200,
    soft: [-50, 50],
    step: 0.5,
    more: true,
  }),
  fNumber: number(
    'f-number',
    0,
    'Aperture of the lens: the smaller the number, the less is sharp in front of and behind the focus. 0 is sharp everywhere.',
    {
      min: 0,
      max: 1000,
      soft: [0, 8],
      step: 0.05,
      focuses: true,
    },
  ),
  focusBy: choice(
    'Focus by',
    'distance',
    [
      { value: 'distance', title: 'Distance' },
      { value: 'point', title: 'Point' },
      { value: 'ribbon', title: 'Ribbon' },
    ],
    'A distance from the camera, a point that stays sharp wherever the camera goes, or the middle of a ribbon.',
  ),
  focus: number(
    'Focus',
    0,
    'Distance that is sharp, measured from the point the camera looks at; below 0 is nearer to the camera.',
    {
      unit: 'm',
      min: -100_000,
      max: 100_000,
      soft: [-3, 3],
      shownWhen: { param: 'focusBy', is: ['distance', 'ribbon'] },
      focuses: true,
    },
  ),
  focusAt: vector('Focus at', [0, 0, 0], 'The point that is sharp. Pick it in the picture, or drag its handle.', {
    unit: 'm',
    min: -100_000,
    max: 100_000,
    soft: [-3, 3],
    shownWhen: { param: 'focusBy', is: ['point'] },
    handle: 'place',
    focuses: true,
  }),
  focusOn: ribbon('Focus on', 'The ribbon whose middle is sharp; while it is not seen, the distance is.', {
    shownWhen: { param: 'focusBy', is: ['ribbon'] },
  }),
  blades: number('Blades', 0, 'Blades of the iris, which shape blurred lights: 0 is round.', {
    min: 0,
    max: 12,
    soft: [0, 9],
    integer: true,
    more: true,
  }),
  held: toggle(
    'Keep brightness',
    true,
    'Keeps the brightness when the f-number changes; otherwise f/4 is as bright as held, and each stop doubles it.',
    { more: true },
  ),
  shutter: number(
    'Shutter',
    0,
    'How long each frame is exposed: 360° is the whole frame, 180° half of it, 0 an instant. What moves is blurred.',
    { unit: '°', min: 0, max: 720, soft: [0, 360], step: 5 },
  ),
} as const;

/** The f-number at which brightness is unchanged. */
const HELD_AT = 4;

/** Length of the longer side of the film in millimetres. */
const FILM = 36;

export const orbit = defineCamera({
  kind: 'orbit',
  title: 'Camera',
  help: 'Goes round a point and looks at it.',
  icon: 'camera',
  params: orbitParams,
  at: (v) => {
    const pose = orbitPose(v.azimuth, v.elevation, v.distance, v.target);
    const parallel = v.lens === 'parallel';
    const iris = v.fNumber > 0;
    // Parallel rays blur like a lens that shows as much from the same distance.
    const focalLength = parallel ? (FILM * v.distance) / v.span : v.focalLength;
    const focus = v.focusBy === 'point' ? distanceAhead(pose, v.focusAt) : v.distance + v.focus;
    return {
      ...pose,
      focalLength: v.focalLength,
      parallel: parallel ? v.span : 0,
      roll: v.roll,
      shift: [v.shift[0] / 100, v.shift[1] / 100],
      exposure: 2 ** v.exposure * (iris && !v.held ? (HELD_AT / v.fNumber) ** 2 : 1),
      // The f-number is focal length over aperture diameter.
      lensRadius: iris ? focalLength / 1000 / (2 * v.fNumber) : 0,
      blades: Math.round(v.blades) < 3 ? 0 : Math.round(v.blades),
      focusDistance: Math.max(0.001, focus),
      ...(v.focusBy === 'ribbon' && v.focusOn !== '' ? { focusOn: v.focusOn } : {}),
      shutter: v.shutter / 360,
    };
  },
});

/**
 * Camera values focused on a point, or on the centre of a ribbon. A lens without an f-number is sharp everywhere, and
 * gets one.
 */
export function focusedOn(
  old: Readonly<Record<string, unknown>>,
  on: readonly [number, number, number] | { readonly ribbon: string },
): Record<string, unknown> {
  const by = 'ribbon' in on ? { focusBy: 'ribbon', focusOn: on.ribbon } : { focusBy: 'point', focusAt: on };
  return { ...by, ...(old.fNumber === undefined || old.fNumber === 0 ? { fNumber: 1 } : {}) };
}
