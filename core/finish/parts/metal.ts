import { number } from '../../declare/params';
import { definePart } from '../part';

export const metal = definePart({
  kind: 'metal',
  title: 'Metal',
  help: 'How much of the surface is bare metal.',
  icon: 'magnet',
  params: {
    metalness: number('Metalness', 0, 'From plastic to metal.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
  },
  channels: { metalness: ['metalness', 0.01] },
  surface: (v) => ({ metalness: v.metalness / 100 }),
});
