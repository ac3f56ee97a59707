import { defineOutput, evenSides } from '../kind';
import { quality } from '../shared-params';

export const page = defineOutput({
  kind: 'page',
  title: 'Web page',
  help: 'Plays the loop without a gap',
  group: 'single',
  icon: 'globe',
  ending: 'html',
  params: { quality },
  beside: ['.mp4', '.webm', '.jpg'],
  sheet: () => 'solid',
  refusal: ({ size }) => evenSides(size),
});
