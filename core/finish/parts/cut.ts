import { number } from '../../declare/params';
import { definePart } from '../part';

export const cut = definePart({
  kind: 'cut',
  title: 'Cut-out',
  help: 'Holes with sharp edges: what a pattern leaves below the level is not there. Give its height a pattern.',
  icon: 'M4 4h16v16H4zM12 8a4 4 0 1 0 0 8 4 4 0 0 0 0-8z',
  params: {
    height: number('Height', 100, 'How high the surface stands against the level below.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    level: number('Level', 50, 'What stands lower than this is cut away.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
  },
  feature: 'cut',
  channels: { height: ['cut', 0.01] },
  surface: (v) => ({ cut: v.height / 100, cutLevel: v.level / 100 }),
});
