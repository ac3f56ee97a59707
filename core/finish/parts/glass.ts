import { colour, number } from '../../declare/params';
import { definePart } from '../part';

export const glass = definePart({
  kind: 'glass',
  title: 'Glass',
  help: 'Light passes through, bends, and takes on colour on its way.',
  icon: 'M6 3h12l-2 18H8L6 3zM7 9h10',
  params: {
    transmission: number('Clearness', 100, 'Share of the light that goes in; the rest is scattered by the base.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    ior: number('Refraction', 1.5, 'Refractive index: 1 bends nothing, water 1.33, window glass 1.52, diamond 2.42.', {
      min: 1,
      max: 3,
      soft: [1, 2.5],
    }),
    thickness: number('Thickness', 0.5, 'How much glass the light goes through; 0 for a thin wall, such as a bubble.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 2],
    }),
    tint: colour('Tint', '#FFFFFF', 'What white light becomes after the distance below.'),
    tintAfter: number('Tinted after', 1, 'Distance within the glass after which white light has the tint.', {
      unit: 'm',
      min: 0.001,
      max: 1000,
      soft: [0.05, 4],
    }),
    dispersion: number(
      'Dispersion',
      0,
      'How far colours part: 20 divided by the Abbe number. Crown glass 0.33, diamond 0.36.',
      {
        min: 0,
        max: 5,
        soft: [0, 2],
      },
    ),
  },
  feature: 'glass',
  channels: {
    transmission: ['transmission', 0.01],
    ior: 'ior',
    thickness: 'thickness',
    tint: 'attenuationColor',
    tintAfter: 'attenuationDistance',
  },
  surface: (v) => ({
    transmission: v.transmission / 100,
    ior: v.ior,
    thickness: v.thickness,
    attenuationColor: v.tint,
    attenuationDistance: v.tintAfter,
    dispersion: v.dispersion,
  }),
});
