/**
 * The context of a small 2D canvas, kept in memory. One on the graphics device waits for that when it is
 * made, which is for seconds while the device compiles the first shaders of a picture.
 */
export function canvas2d(canvas: HTMLCanvasElement | null): CanvasRenderingContext2D | null {
  return canvas?.getContext('2d', { willReadFrequently: true }) ?? null;
}
