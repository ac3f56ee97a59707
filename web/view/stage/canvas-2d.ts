/**
 * Context of a small 2D canvas in main memory. One on the graphics device would wait for that, for seconds while the
 * device compiles the first shaders.
 */
export function canvas2d(canvas: HTMLCanvasElement | null): CanvasRenderingContext2D | null {
  return canvas?.getContext('2d', { willReadFrequently: true }) ?? null;
}
