import { number } from '../../declare/params';
import { definePart } from '../part';

export const bump = definePart({
  kind: 'bump',
  title: 'Bump',
  help: 'Fine relief that light falls on, without moving the form. Give its height a pattern.',
  icon: 'M3 17c2 0 2-5 4.5-5s2.5 5 4.5 5 2-9 4.5-9 2.5 9 4.5 9M3 21h18',
  params: {
    height: number(
      'Height',
      0,
      'How far the surface seems raised. An even height shows nothing; a pattern on it does.',
      {
        unit: 'mm',
        min: -1000,
        max: 1000,
        soft: [0, 40],
        step: 0.5,
      },
    ),
  },
  feature: 'bump',
  channels: { height: ['bump', 0.001] },
  surface: (v) => ({ bump: v.height / 1000 }),
});
