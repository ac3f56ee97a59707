import { defineOutput } from '../kind';

export const ply = defineOutput({
  kind: 'ply',
  title: 'PLY shapes',
  help: 'One file per frame, small and exact',
  group: 'shapes',
  icon: 'box',
  ending: 'ply',
  many: true,
  params: {},
  sheet: () => null,
});
