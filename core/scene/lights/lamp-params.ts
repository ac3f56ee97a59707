import { choice, colour, number, toggle, vector, type Evaluated, type NumberParam } from '../../declare/params';
import type { Vec3 } from '../../maths/vec3';
import { displayToLight } from '../../maths/srgb';
import { blackBody } from '../temperature';

/** Parameters of every lamp: strength, colour and shadow. */
export const lampParams = {
  tone: choice(
    'Light',
    'kelvin',
    [
      { value: 'kelvin', title: 'Temperature' },
      { value: 'colour', title: 'Colour' },
    ],
    'White of a temperature, or any colour.',
  ),
  kelvin: number('Temperature', 5500, 'Candle 1900, tungsten 2856, noon 5500, shade 8000.', {
    unit: 'K',
    min: 1667,
    max: 25_000,
    soft: [1800, 12_000],
    step: 50,
    shownWhen: { param: 'tone', is: ['kelvin'] },
  }),
  colour: colour('Colour', '#FFFFFF', 'Colour of the light.', { shownWhen: { param: 'tone', is: ['colour'] } }),
  shadow: toggle('Shadow', true, 'Casts shadows.'),
} as const;

/** Position of a lamp, with a handle in the picture. */
export const placeOf = (at: Vec3) =>
  vector('Place', at, 'Where it stands.', { unit: 'm', min: -10_000, max: 10_000, soft: [-6, 6], handle: 'place' });

/** Target of a lamp. */
export const aimOf = (at: Vec3 = [0, 0, 0]) =>
  vector('Points at', at, 'What it points at.', {
    unit: 'm',
    min: -10_000,
    max: 10_000,
    soft: [-6, 6],
    handle: 'place',
  });

export const strengthOf = (usual: number, help: string): NumberParam =>
  number('Strength', usual, help, { unit: '%', min: 0, max: 10_000_000, soft: [0, 400], step: 1 });

type Lamp = Evaluated<typeof lampParams>;

/** Colour of a lamp as linear sRGB. */
export function lampColour(v: Pick<Lamp, 'tone' | 'kelvin' | 'colour'>): Vec3 {
  if (v.tone === 'kelvin') return blackBody(v.kelvin);
  const channel = (i: number) => displayToLight(parseInt(v.colour.slice(i, i + 2), 16) / 255);
  return [channel(1), channel(3), channel(5)];
}
