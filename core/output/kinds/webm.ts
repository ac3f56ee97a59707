import { defineOutput, evenSides, pictureParams } from '../kind';

export const webm = defineOutput({
  kind: 'webm',
  title: 'WebM movie',
  help: 'VP9',
  icon: 'film',
  ending: 'webm',
  params: pictureParams,
  refusal: evenSides,
  contents: (base) => `${base}.webm`,
});
