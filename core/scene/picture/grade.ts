import { colour, number } from '../../declare/params';
import { definePictureEffect } from '../kind';

/** The neutral tint. */
const NONE = '#808080';

const tint = (title: string, help: string) => colour(title, NONE, help);

/** Distance of a tint from its own grey, −1…1 per channel; display values. */
function leaning(hex: string): readonly [number, number, number] {
  const rgb = [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255);
  const grey = 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
  return rgb.map((c) => c - grey) as [number, number, number];
}

export const grade = definePictureEffect({
  kind: 'grade',
  title: 'Lift, gamma, gain',
  help: 'Brightness and tint of shadows, midtones and highlights, each on its own.',
  icon: 'M6 12a3 3 0 1 0 0 .01M14 7a3 3 0 1 0 0 .01M21 14a3 3 0 1 0 0 .01M4 20h16',
  params: {
    lift: number('Lift', 0, 'Raises the dark parts; white stays.', {
      unit: '%',
      min: -100,
      max: 100,
      soft: [-30, 30],
      step: 0.5,
    }),
    liftTint: tint('Dark tint', 'The colour the dark parts lean to; grey is none.'),
    gamma: number('Gamma', 1, 'Raises the middle; black and white stay.', {
      min: 0.1,
      max: 10,
      soft: [0.4, 2.5],
      step: 0.01,
    }),
    gammaTint: tint('Middle tint', 'The colour the middle leans to; grey is none.'),
    gain: number('Gain', 1, 'Stretches all up to white; black stays.', {
      unit: '×',
      min: 0,
      max: 10,
      soft: [0.4, 2],
      step: 0.01,
    }),
    gainTint: tint('Bright tint', 'The colour the bright parts lean to; grey is none.'),
  },
  at: (v) => ({
    type: 'grade',
    lift: leaning(v.liftTint).map((c) => v.lift / 100 + 0.5 * c) as [number, number, number],
    // Inverse exponent, so that a tint brightens midtones in its own colour.
    gamma: leaning(v.gammaTint).map((c) => Math.max(0.02, v.gamma * 2 ** (2 * c))) as [number, number, number],
    gain: leaning(v.gainTint).map((c) => Math.max(0, v.gain * (1 + c))) as [number, number, number],
  }),
});
