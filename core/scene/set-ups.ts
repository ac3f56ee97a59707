import { newItem, type Item, type Values } from '../declare/items';
import { lights } from './index';

/** A set of lights to begin with. Once chosen they are ordinary lights. */
export interface LightSetUp {
  readonly id: string;
  readonly title: string;
  readonly help: string;
  /** Positions refer to a camera that looks along −z at a form about two metres large at the origin. */
  readonly lights: readonly { readonly kind: string; readonly values: Values }[];
}

const area = (
  place: readonly [number, number, number],
  width: number,
  height: number,
  strength: number,
  kelvin: number,
): LightSetUp['lights'][number] => ({ kind: 'area', values: { place, width, height, strength, kelvin } });

/** Key, fill and rim, and variants: common practice of photographers. */
export const lightSetUps: readonly LightSetUp[] = [
  {
    id: 'three',
    title: 'Key, fill and rim',
    help: 'A strong lamp from the side, a weak one across, and one from behind that draws the outline.',
    lights: [
      area([-3, 3, 3], 2, 2, 190, 5200),
      area([3.6, 1.2, 2.6], 2.4, 2.4, 40, 7000),
      area([1.6, 2.8, -3.4], 1, 2.6, 230, 6500),
    ],
  },
  {
    id: 'strips',
    title: 'Two strips',
    help: 'Two tall narrow lamps from behind at either side: long highlights on dark, smooth forms.',
    lights: [area([-3, 1, -1.6], 0.4, 4, 260, 6800), area([3, 1, -1.6], 0.4, 4, 260, 4300)],
  },
  {
    id: 'window',
    title: 'Window',
    help: 'One large soft lamp from the side, and a little light from all round.',
    lights: [
      area([-3.6, 1.8, 1.2], 2.6, 3.2, 240, 5800),
      { kind: 'sky', values: { strength: 18, above: '#C9D3DE', horizon: '#DAD6CE', below: '#8E8579', shade: true } },
    ],
  },
  {
    id: 'overcast',
    title: 'Overcast',
    help: 'Even light from above that gets less in every corner.',
    lights: [
      { kind: 'sky', values: { strength: 110, above: '#EEF2F5', horizon: '#D9DDE0', below: '#8C867D', shade: true } },
    ],
  },
  {
    id: 'low sun',
    title: 'Low sun',
    help: 'A warm sun near the horizon, and a blue sky in the shadows.',
    lights: [
      { kind: 'sun', values: { strength: 190, azimuth: -68, elevation: 16, size: 1.5, kelvin: 3300 } },
      { kind: 'sky', values: { strength: 42, above: '#5F83B8', horizon: '#C7B8A8', below: '#4A443E', shade: true } },
    ],
  },
  {
    id: 'rim',
    title: 'Rim in the dark',
    help: 'Only outlines are lit, from behind and above.',
    lights: [area([-2.4, 2.6, -3], 1.2, 2, 320, 9000), area([2.8, 1, -2.6], 0.8, 2.4, 220, 3600)],
  },
  {
    id: 'studio',
    title: 'Studio with shade',
    help: 'The soft room, with shade in corners and under forms.',
    lights: [{ kind: 'studio', values: { shade: true } }],
  },
];

/**
 * Lights of a set-up as items, rotated with a camera.
 *
 * @param azimuth of the camera, degrees about the vertical axis
 * @param centre the point it looks at
 * @param size factor on distances and sizes, for forms smaller or larger than two metres
 */
export function setUpItems(
  setUp: LightSetUp,
  azimuth: number,
  centre: readonly [number, number, number],
  size: number,
): Item[] {
  const a = (azimuth * Math.PI) / 180;
  const [s, c] = [Math.sin(a), Math.cos(a)];
  const round = (x: number) => Number(x.toFixed(3));
  return setUp.lights.map(({ kind, values }) => {
    const own: Record<string, unknown> = { ...values };
    if (Array.isArray(own.place)) {
      const [x, y, z] = (own.place as readonly number[]).map((p) => p * size);
      own.place = [round(centre[0] + c * x + s * z), round(centre[1] + y), round(centre[2] - s * x + c * z)];
      own.aim = centre.map(round);
      for (const side of ['width', 'height'] as const)
        if (typeof own[side] === 'number') own[side] = round((own[side] as number) * size);
      // Strengths refer to three metres: a more distant lamp must be stronger.
      if (typeof own.strength === 'number') own.strength = round((own.strength as number) * size ** 2);
    }
    if (typeof own.azimuth === 'number') own.azimuth = round((own.azimuth as number) + azimuth);
    return newItem(lights.get(kind), own as Values);
  });
}
