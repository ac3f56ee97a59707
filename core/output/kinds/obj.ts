import { defineOutput } from '../kind';

export const obj = defineOutput({
  kind: 'obj',
  title: 'OBJ shapes',
  help: 'A file a frame',
  group: 'shapes',
  icon: 'box',
  ending: 'obj',
  many: true,
  params: {},
  sheet: () => null,
});
