import { toggle } from '../../declare/params';
import { defineOutput, evenSides } from '../kind';
import { plays } from '../shared-params';

export const prores = defineOutput({
  kind: 'prores',
  title: 'ProRes 4444 movie',
  help: 'MOV for editing, with alpha',
  group: 'movies',
  icon: 'film',
  ending: 'mov',
  params: { plays, clear: toggle('Without backdrop', true, 'Transparent where nothing covers the picture.') },
  sheet: (v) => (v.clear ? 'clear' : 'solid'),
  refusal: ({ size }) => evenSides(size),
});
