import { defineOutput, evenSides, pictureParams } from '../kind';

export const mp4 = defineOutput({
  kind: 'mp4',
  title: 'MP4 movie',
  help: 'H.264',
  icon: 'film',
  ending: 'mp4',
  params: pictureParams,
  refusal: evenSides,
  contents: (base) => `${base}.mp4`,
});
