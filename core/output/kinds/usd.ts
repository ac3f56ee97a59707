import { defineOutput } from '../kind';

export const usd = defineOutput({
  kind: 'usd',
  title: 'OpenUSD',
  help: 'Shapes at every frame, text',
  group: 'shapes',
  icon: 'box',
  ending: 'usda',
  params: {},
  sheet: () => null,
});
