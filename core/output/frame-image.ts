/**
 * An image of a frame from which outputs are made: as shown, 16 bits in true light and 8 in quick light, with or
 * without its backdrop; or its radiance as a file of its own, with or without passes.
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

/** Whether an image has passes as layers. */
export function hasPasses(sheet: FrameImageName): boolean {
  return sheet.endsWith('-passes');
}
