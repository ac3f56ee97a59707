import { number } from '../../declare/params';

/** Rotation and tilt of an environment. */
export const turnedParams = {
  turn: number('Turn', 0, 'Turns it round the form.', {
    unit: '°',
    cyclic: 360,
    min: -36_000,
    max: 36_000,
    soft: [-180, 180],
    step: 1,
  }),
  tilt: number('Tilt', 0, 'Leans it forward.', {
    unit: '°',
    cyclic: 360,
    min: -36_000,
    max: 36_000,
    soft: [-90, 90],
    step: 1,
  }),
} as const;

export const strengthParam = number('Strength', 100, 'Brightness of all of it.', {
  unit: '%',
  min: 0,
  max: 10_000,
  soft: [0, 300],
  step: 1,
});
