import { noiseParams, settingsFrom, noiseMoves, type NoiseValues } from '../../noise/noise-params';
import { choice } from '../../declare/params';
import { definePattern } from '../kind';

const { space: _, ...own } = noiseParams;

/** The parameters of steps, in space or on the surface. */
const plain = (v: Omit<NoiseValues, 'space'>): NoiseValues => ({ ...v, space: 'place' });

/** On the surface, a tile spans it once. */
export const noise = definePattern({
  kind: 'noise',
  title: 'Noise',
  help: 'Clouds, cells, veins, grain: any kind of noise, which may change over the loop and closes.',
  icon: 'M3 8c3-4 6 4 9 0s6 4 9 0M3 13c3-4 6 4 9 0s6 4 9 0M3 18c3-4 6 4 9 0s6 4 9 0',
  params: {
    ...own,
    scale: { ...own.scale, default: 0.4, shownWhen: { param: 'space', is: ['form', 'room'] } },
    space: choice(
      'Lies in',
      'form',
      [
        { value: 'form', title: 'Form', help: 'Goes along with the form, and is the same on every copy.' },
        { value: 'room', title: 'Room', help: 'Stands in the room; forms and copies move through it.' },
        { value: 'surface', title: 'Surface', help: 'Laid on the surface (UV), a tile once round.' },
      ],
      'Goes with the form, stands in the room, or is laid on the surface.',
    ),
  },
  noise(v) {
    const settings = settingsFrom(plain(v));
    // As with noise of steps, a tile of features spans the surface once and meets itself.
    return v.space === 'surface'
      ? { ...settings, wraps: true, scale: 1, stretch: [1, 1, 1], turn: [0, 0, 0] }
      : settings;
  },
  reads: { clock: (v) => noiseMoves(plain(v)) },
  height(m, hit, v, read) {
    const at =
      v.space === 'surface'
        ? ([m.mul(m.sub(m.number(1), hit.uv[0]), v.tile), m.mul(hit.uv[1], v.tile), m.number(0)] as const)
        : v.space === 'room'
          ? hit.room
          : hit.form;
    return m.add(m.number(0.5), m.mul(m.number(0.5), read(at)));
  },
});
