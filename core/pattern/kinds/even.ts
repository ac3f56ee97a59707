import { definePattern } from '../kind';

export const even = definePattern({
  kind: 'even',
  title: 'Even',
  help: 'The same all over: with Moved on it goes along its colours as the loop goes by.',
  icon: 'M4 4h16v16H4z',
  round: true,
  params: {},
  height: (m) => m.number(0),
});
