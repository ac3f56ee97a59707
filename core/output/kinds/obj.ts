import { defineOutput } from '../kind';

export const obj = defineOutput({
  kind: 'obj',
  title: 'OBJ shapes',
  help: 'One file per frame',
  group: 'shapes',
  icon: 'box',
  ending: 'obj',
  many: true,
  params: {},
  sheet: () => null,
});
