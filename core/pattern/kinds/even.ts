import { definePattern } from '../kind';

export const even = definePattern({
  kind: 'even',
  title: 'Even',
  help: 'The same everywhere. Let Moved on run through its colours over the loop.',
  icon: 'M4 4h16v16H4z',
  round: true,
  params: {},
  height: (m) => m.number(0),
});
