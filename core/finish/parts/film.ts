import { number } from '../../declare/params';
import { definePart } from '../part';

export const film = definePart({
  kind: 'film',
  title: 'Film',
  help: 'A film as thin as a wavelength of light, whose colours change with thickness and angle: soap, oil, temper colours.',
  icon: 'M3 15c3-6 6-6 9 0s6 6 9 0M3 9c3-6 6-6 9 0s6 6 9 0',
  params: {
    film: number('Film', 100, 'How much of the surface it covers.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    thickness: number('Thickness', 420, 'Of the film. Colours come round again every 200 nm or so, paler each time.', {
      unit: 'nm',
      min: 0,
      max: 3000,
      soft: [100, 1200],
      step: 5,
    }),
    ior: number('Refraction', 1.33, 'Refractive index of the film: soap and water 1.33, oil 1.47.', {
      min: 1,
      max: 3,
      soft: [1, 2.5],
    }),
  },
  feature: 'film',
  channels: { film: ['iridescence', 0.01], thickness: 'iridescenceThickness', ior: 'iridescenceIor' },
  surface: (v) => ({ iridescence: v.film / 100, iridescenceThickness: v.thickness, iridescenceIor: v.ior }),
});
