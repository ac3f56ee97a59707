import { number } from '../../declare/params';
import { definePart } from '../part';

export const coat = definePart({
  kind: 'coat',
  title: 'Coat',
  help: 'A clear layer of lacquer over everything else.',
  icon: 'M4 8h16M4 8v9a3 3 0 0 0 3 3h10a3 3 0 0 0 3-3V8M4 4h16v4H4z',
  params: {
    coat: number('Coat', 100, 'How much of the surface it covers.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    roughness: number('Roughness', 4, 'Of the coat alone, from polished to frosted.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
  },
  feature: 'coat',
  channels: { coat: ['clearcoat', 0.01], roughness: ['clearcoatRoughness', 0.01] },
  surface: (v) => ({ clearcoat: v.coat / 100, clearcoatRoughness: v.roughness / 100 }),
});
