import { defineOutput } from '../kind';

export const usd = defineOutput({
  kind: 'usd',
  title: 'OpenUSD',
  help: 'Shapes with their places at every frame, as text',
  group: 'shapes',
  icon: 'box',
  ending: 'usda',
  params: {},
  sheet: () => null,
});
