/** A bitmap at once: what is promised for later waits until the next picture, which may be long in making, is done. */
export function bitmapOf(pixels: Uint8ClampedArray<ArrayBuffer>, width: number, height: number): ImageBitmap {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(pixels, width, height), 0, 0);
  return canvas.transferToImageBitmap();
}
