import { defineOutput, needsTrueLight } from '../kind';
import { clear, depth } from '../shared-params';

export const tiff = defineOutput({
  kind: 'tiff',
  title: 'TIFF pictures',
  help: 'Numbered, for print and grading',
  group: 'pictures',
  icon: 'images',
  ending: 'tif',
  many: true,
  params: { depth, clear },
  sheet: (v) => (v.clear ? 'clear' : 'solid'),
  refusal: ({ light, values }) => (values.depth === '16' ? needsTrueLight(light, 'A depth of 16 bit') : null),
});
