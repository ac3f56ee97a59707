import { defineOutput } from '../kind';
import { clear } from '../shared-params';

export const apng = defineOutput({
  kind: 'apng',
  title: 'Animated PNG',
  help: 'Lossless, with or without alpha',
  group: 'animated',
  icon: 'film',
  ending: 'png',
  params: { clear },
  sheet: (v) => (v.clear ? 'clear' : 'solid'),
});
