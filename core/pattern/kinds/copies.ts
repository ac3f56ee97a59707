import { choice, seed } from '../../declare/params';
import { definePattern } from '../kind';

export const copies = definePattern({
  kind: 'copies',
  title: 'Copy by copy',
  help: 'One value for each copy, by its place in the row or at random.',
  icon: 'M4 4h6v6H4zM14 4h6v6h-6zM4 14h6v6H4zM14 14h6v6h-6z',
  round: true,
  params: {
    by: choice(
      'Goes by',
      'order',
      [
        { value: 'order', title: 'Order' },
        { value: 'chance', title: 'Chance' },
      ],
      'The place in the repeat, or chance.',
    ),
    seed: seed('Seed', 0, 'A different number gives another throw.', 'pattern', {
      shownWhen: { param: 'by', is: ['chance'] },
    }),
  },
  height: (m, hit, v) => (v.by === 'order' ? hit.copy.order : m.chance(hit.copy.id, v.seed)),
});
