import { defineOutput } from '../kind';

export const glb = defineOutput({
  kind: 'glb',
  title: 'glTF (GLB)',
  help: 'Shapes, finishes and movement in one file',
  group: 'shapes',
  icon: 'box',
  ending: 'glb',
  params: {},
  sheet: () => null,
});
