import { defineOutput } from '../kind';

export const ply = defineOutput({
  kind: 'ply',
  title: 'PLY shapes',
  help: 'A file a frame, small and exact',
  group: 'shapes',
  icon: 'box',
  ending: 'ply',
  many: true,
  params: {},
  sheet: () => null,
});
