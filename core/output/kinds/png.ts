import { defineOutput, frameName, pictureParams } from '../kind';

export const png = defineOutput({
  kind: 'png',
  title: 'PNG pictures',
  help: 'Numbered, in a zip',
  icon: 'images',
  ending: 'zip',
  alpha: true,
  params: pictureParams,
  refusal: () => null,
  contents: (base, frames, loop) =>
    `${base}.zip: ${frameName(base, frames[0], loop.frames)}${frames.length > 1 ? ` … ${frameName(base, frames[frames.length - 1], loop.frames)}` : ''}`,
});
