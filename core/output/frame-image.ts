/**
 * A picture that is made of a frame and kept, of which outputs are made: as it is shown, 16 bits in true light and 8 in
 * quick light, with its backdrop or without it; or its light in a file of its own, with what else is known of its pixels.
 */
export const FRAME_IMAGES = {
  solid: { ending: 'png', light: false },
  clear: { ending: 'png', light: false },
  half: { ending: 'exr', light: true },
  float: { ending: 'exr', light: true },
  'half-passes': { ending: 'exr', light: true },
  'float-passes': { ending: 'exr', light: true },
} as const;

export type FrameImageName = keyof typeof FRAME_IMAGES;

/** Whether a sheet has depth, place, normals, masks and the rest as layers. */
export function hasPasses(sheet: FrameImageName): boolean {
  return sheet.endsWith('-passes');
}
