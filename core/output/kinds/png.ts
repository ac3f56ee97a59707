import { defineOutput, needsTrueLight } from '../kind';
import { clear, depth } from '../shared-params';

export const png = defineOutput({
  kind: 'png',
  title: 'PNG pictures',
  help: 'Numbered, lossless',
  group: 'pictures',
  icon: 'images',
  ending: 'png',
  many: true,
  params: { depth, clear },
  sheet: (v) => (v.clear ? 'clear' : 'solid'),
  refusal: ({ light, values }) => (values.depth === '16' ? needsTrueLight(light, 'A depth of 16 bit') : null),
});
