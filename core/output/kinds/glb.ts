import { defineOutput } from '../kind';

export const glb = defineOutput({
  kind: 'glb',
  title: 'glTF (GLB)',
  help: 'Shapes, finishes, animation',
  group: 'shapes',
  icon: 'box',
  ending: 'glb',
  params: {},
  sheet: () => null,
});
